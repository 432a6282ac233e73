#include "core/walk/walk_course.h"

#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>
#include <cmath>

#include "core/bench/walk_order.h"
#include "core/square_bench.h"

using namespace sunbreak;

namespace {

/// A sweep that is walked as a tester would: each reading takes ten seconds.
struct Walker {
  Layout layout = cells(4, 3);
  std::vector<int> order = walk_order(layout, WalkOrder::FarToDoor);
  std::vector<StationOnWalk> stations = std::vector<StationOnWalk>(layout.stations.size());
  int every = 0;
  double reference_s = -INFINITY, now_s = 1000;
  WalkCourse course;

  SweepOnWalk sweep() const { return {layout, order, stations, every, reference_s}; }
  void begin() { course.begin(sweep()); }
  WalkCourse::Step read() {
    now_s += 10;
    if (course.turn() == Turn::Reference) reference_s = now_s;
    if (course.turn() == Turn::Station) stations[course.station()] = {StationOnWalk::Read, true, now_s};
    return course.advance(sweep());
  }
  void read(int count) {
    for (int i = 0; i < count; ++i) read();
  }
};

}  // namespace

TEST(WalkCourse, AnUndisturbedWalkIsWhatAWalkAsksFor) {
  Walker w;
  w.every = 3;
  w.begin();
  for (const WalkStep& step : undisturbed_walk(w.layout, w.order, w.every)) {
    EXPECT_EQ(step, (WalkStep{w.course.station(), w.course.turn()}));
    w.read();
  }
  EXPECT_TRUE(std::ranges::all_of(w.stations, &StationOnWalk::done)) << "to its end";
}

TEST(WalkCourse, ReadsEveryStationInOrderAndSaysWhenItIsThrough) {
  Walker w;
  w.begin();
  for (std::size_t i = 0; i < w.order.size(); ++i) {
    EXPECT_EQ(w.course.station(), w.order[i]);
    EXPECT_EQ(w.read(), i + 1 < w.order.size() ? WalkCourse::Step::Moved : WalkCourse::Step::Complete);
  }
  EXPECT_EQ(w.course.station(), w.order.back());
}

TEST(WalkCourse, ResumesAtTheFirstStationThatIsNotDone) {
  Walker w;
  w.stations[w.order[0]].kind = StationOnWalk::Read;
  w.stations[w.order[1]].kind = StationOnWalk::Missing;
  w.begin();
  EXPECT_EQ(w.course.station(), w.order[2]);
  for (StationOnWalk& s : w.stations) s.kind = StationOnWalk::Read;
  w.begin();
  EXPECT_EQ(w.course.station(), w.order[0]);
}

TEST(WalkCourse, TheOpeningProbeIsReadFirst) {
  Walker w;
  const auto probe = opening_probe(w.layout);
  w.order = with_probe_first(w.order, probe);
  w.begin();
  for (const int station : probe) {
    EXPECT_EQ(w.course.station(), station);
    w.read();
  }
}

TEST(WalkCourse, ASkippedStationComesAgainAtTheEnd) {
  Walker w;
  w.begin();
  EXPECT_EQ(w.course.skip(w.sweep()), WalkCourse::Step::Moved);
  EXPECT_EQ(w.course.station(), w.order[1]);
  w.read(11);
  EXPECT_EQ(w.course.station(), w.order[0]);
  EXPECT_EQ(w.course.skip(w.sweep()), WalkCourse::Step::NothingLeft);
  EXPECT_EQ(w.course.station(), w.order[0]);
  EXPECT_EQ(w.read(), WalkCourse::Step::Complete);
}

TEST(WalkCourse, TheDueReferenceComesBetweenAndTheWalkGoesOnWhereItWasLeft) {
  Walker w;
  w.every = 4;
  w.begin();
  std::vector<int> walked;
  int references = 0;
  while (true) {
    if (w.course.turn() == Turn::Reference) {
      ++references;
      EXPECT_EQ(w.course.station(), reference_station(w.layout));
    } else {
      walked.push_back(w.course.station());
    }
    if (w.read() == WalkCourse::Step::Complete) break;
  }
  EXPECT_EQ(walked, w.order);
  EXPECT_GE(references, 2);
}

TEST(WalkCourse, ASkippedReferenceIsDueAgainAfterAQuarterOfItsInterval) {
  Walker w;
  w.layout = cells(6, 6);
  w.order = walk_order(w.layout, WalkOrder::FarToDoor);
  w.stations.assign(36, {});
  w.every = 8;
  w.begin();
  w.read(8);
  ASSERT_EQ(w.course.turn(), Turn::Reference);
  EXPECT_EQ(w.course.skip(w.sweep()), WalkCourse::Step::Moved);
  EXPECT_EQ(w.course.turn(), Turn::Station);
  EXPECT_EQ(w.course.station(), w.order[8]);
  w.read();
  EXPECT_EQ(w.course.turn(), Turn::Station);
  w.read();
  EXPECT_EQ(w.course.turn(), Turn::Reference);
}

TEST(WalkCourse, AnAskedReferenceAskedTwiceStillLeadsBack) {
  Walker w;
  w.begin();
  w.read(2);
  EXPECT_TRUE(w.course.go_to_reference(w.sweep()));
  EXPECT_TRUE(w.course.go_to_reference(w.sweep()));
  w.read();
  EXPECT_EQ(w.course.station(), w.order[2]);
}

TEST(WalkCourse, PastedReadingsMakeNoReferenceDue) {
  Walker w;
  w.every = 2;
  for (int i = 0; i < 8; ++i) w.stations[w.order[i]] = {StationOnWalk::Read, false, 5000.0 + i};
  EXPECT_FALSE(reference_due(w.sweep()));
}

TEST(WalkCourse, ARepeatIsOfAStationThatIsReadAndCanBeTakenBack) {
  Walker w;
  w.begin();
  EXPECT_FALSE(w.course.toggle_repeat(w.sweep()));
  w.read();
  w.course.go_back(w.sweep());
  EXPECT_TRUE(w.course.toggle_repeat(w.sweep()));
  EXPECT_EQ(w.course.turn(), Turn::Repeat);
  EXPECT_TRUE(w.course.toggle_repeat(w.sweep()));
  EXPECT_EQ(w.course.turn(), Turn::Station);
  w.course.toggle_repeat(w.sweep());
  w.read();
  EXPECT_EQ(w.course.station(), w.order[1]) << "after the repeat the walk goes on";
}

TEST(WalkCourse, ArrowsStopAtTheEdge) {
  Walker w;
  w.begin();
  w.course.go_to(w.layout.index(0, 0));
  w.course.go_by(w.layout, -1, -1);
  EXPECT_EQ(w.course.station(), w.layout.index(0, 0));
  w.course.go_by(w.layout, 9, 1);
  EXPECT_EQ(w.course.station(), w.layout.index(3, 1));
}

TEST(WalkCourse, SpotsHaveNoReferenceAndAreWalkedAsNamed) {
  Walker w;
  w.layout = lay_out(square, {GridKind::Spots, 0, 0, 0, 0, {{"a", 0.2, 0.3}, {"b", 0.7, 0.9}, {"c", 1, 1}}}).value();
  w.order = {0, 1, 2};
  w.stations.assign(3, {});
  w.every = 1;
  w.begin();
  EXPECT_FALSE(w.course.go_to_reference(w.sweep()));
  w.read();
  EXPECT_EQ(w.course.station(), 1);
  EXPECT_EQ(w.course.turn(), Turn::Station);
  w.course.go_by(w.layout, 5, 0);
  EXPECT_EQ(w.course.station(), 2);
}

TEST(WalkCourse, WhatLooksWrongIsLookedAtAgainOnce) {
  Walker w;
  w.begin();
  EXPECT_TRUE(w.course.look_again());
  EXPECT_FALSE(w.course.look_again());
  EXPECT_TRUE(w.course.looked_again_at(w.order[0]));
  w.read();
  EXPECT_TRUE(w.course.look_again());
}

/// Whatever a tester does on the way, the walk ends with every station done.
RC_GTEST_PROP(WalkCourse, AlwaysComesToAnEnd, ()) {
  Walker w;
  w.every = *rc::gen::inRange(0, 6);
  w.begin();
  const auto keys = *rc::gen::container<std::vector<int>>(40, rc::gen::inRange(0, 8));
  for (const int key : keys) {
    if (key == 0) w.course.skip(w.sweep());
    if (key == 1) w.course.go_back(w.sweep());
    if (key == 2) w.course.go_to_reference(w.sweep());
    if (key == 3) w.course.toggle_repeat(w.sweep());
    if (key == 4) w.course.go_by(w.layout, 1, -1);
    if (key > 4) w.read();
  }
  int more = 0;
  while (w.read() != WalkCourse::Step::Complete) RC_ASSERT(++more < 40);
  for (const StationOnWalk& s : w.stations) RC_ASSERT(s.done());
}
