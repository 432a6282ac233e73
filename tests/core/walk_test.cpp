#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "core/bench/ladder.h"
#include "core/bench/tape.h"
#include "core/bench/walk_order.h"
#include "core/sweep/drift.h"
#include "core/walk/hold.h"

using namespace sunbreak;

namespace {

Layout cell_layout(int columns, int rows) {
  return lay_out({columns * 0.1, rows * 0.1}, {GridKind::Cells, columns, rows, 0, 0, {}}).value();
}

}  // namespace

TEST(WalkOrders, FromTheDoorSnakesTheOtherWay) {
  EXPECT_EQ(walk_order(cell_layout(3, 2), WalkOrder::DoorToFar), (std::vector<int>{0, 1, 2, 5, 4, 3}));
}

TEST(WalkOrders, CenterOutwardGoesRingByRing) {
  const auto order = walk_order(cell_layout(3, 3), WalkOrder::CenterOutward);
  EXPECT_EQ(order.front(), 4);
  EXPECT_EQ(std::vector<int>(order.begin() + 1, order.end()), (std::vector<int>{6, 7, 8, 5, 2, 1, 0, 3}))
      << "around from the far left";
}

TEST(WalkOrders, EveryOrderVisitsEachStationOnceAndMovesByNeighbors) {
  for (const auto& [columns, rows] : {std::pair{12, 12}, {7, 5}, {1, 6}, {6, 1}, {2, 2}, {24, 8}}) {
    const Layout layout = cell_layout(columns, rows);
    for (const WalkOrder order : {WalkOrder::FarToDoor, WalkOrder::DoorToFar, WalkOrder::CenterOutward}) {
      auto walk = walk_order(layout, order);
      for (std::size_t i = 1; i < walk.size(); ++i) {
        const Station &a = layout.stations[walk[i - 1]], &b = layout.stations[walk[i]];
        EXPECT_LE(std::max(std::abs(a.column - b.column), std::abs(a.row - b.row)), 1)
            << name(order) << " " << columns << "x" << rows << " step " << i;
      }
      std::sort(walk.begin(), walk.end());
      for (int i = 0; i < columns * rows; ++i) ASSERT_EQ(walk[i], i);
    }
  }
}

TEST(WalkOrders, NamesReadBack) {
  for (const WalkOrder order : {WalkOrder::FarToDoor, WalkOrder::DoorToFar, WalkOrder::CenterOutward})
    EXPECT_EQ(parse_walk_order(name(order)), order);
  EXPECT_FALSE(parse_walk_order("zigzag").has_value());
}

TEST(WalkOrders, TheProbeIsCornersAndCenterAndEachComesOnce) {
  const Layout layout = cell_layout(12, 12);
  const auto probe = opening_probe(layout);
  EXPECT_EQ(probe, (std::vector<int>{132, 143, 11, 0, reference_station(layout)}));
  const auto walk = with_probe_first(walk_order(layout, WalkOrder::FarToDoor), probe);
  EXPECT_EQ(walk.size(), 144u);
  EXPECT_EQ(std::vector<int>(walk.begin(), walk.begin() + 5), probe);
  EXPECT_EQ(walk[5], 133) << "on from the far left corner";
  EXPECT_TRUE(opening_probe(cell_layout(2, 9)).empty());
}

TEST(WalkOrders, TheReferenceIsNearestTheMiddle) {
  EXPECT_EQ(reference_station(cell_layout(3, 3)), 4);
  EXPECT_EQ(reference_station(cell_layout(4, 4)), 5) << "of four alike the first";
}

TEST(DriftCorrection, InterpolatesInTimeAndScalesToTheStart) {
  // 500 at the start, 450 after 100 s: 10 % down.
  const Drift drift({{0, 500, 0.001}, {100, 450, 0.001}});
  EXPECT_TRUE(drift.significant());
  EXPECT_DOUBLE_EQ(drift.factor(0), 1);
  EXPECT_DOUBLE_EQ(drift.factor(50), 500.0 / 475);
  EXPECT_DOUBLE_EQ(drift.factor(100), 500.0 / 450);
  EXPECT_DOUBLE_EQ(drift.factor(-10), 1) << "before the first point it holds";
  EXPECT_DOUBLE_EQ(drift.factor(900), 500.0 / 450) << "after the last one too";
  EXPECT_NEAR(drift.largest_change(), -0.1, 1e-12);
}

TEST(DriftCorrection, PointsMayComeInAnyOrderAndBadOnesAreLeftOut) {
  const Drift drift({{100, 450, 0}, {0, 500, 0}, {50, 0, 0}, {70, -3, 0}, {NAN, 480, 0}});
  EXPECT_DOUBLE_EQ(drift.factor(50), 500.0 / 475);
}

TEST(DriftCorrection, NoiseDoesNotScaleASweep) {
  // 2 % up, by readings that scatter by 1 % each: within three standard deviations of their difference.
  const Drift noisy({{0, 500, 0.01}, {100, 510, 0.01}});
  EXPECT_FALSE(noisy.significant());
  EXPECT_DOUBLE_EQ(noisy.factor(100), 1);
  const Drift quiet({{0, 500, 0.002}, {100, 510, 0.002}});
  EXPECT_TRUE(quiet.significant());
  EXPECT_DOUBLE_EQ(quiet.factor(100), 500.0 / 510);
}

TEST(DriftCorrection, OnePointIsNoDrift) {
  EXPECT_FALSE(Drift({{0, 500, 0}}).exists());
  EXPECT_DOUBLE_EQ(Drift({{0, 500, 0}}).factor(10), 1);
}

TEST(Hold, TakesTheMeanOnceTheValueHoldsStill) {
  HoldDetector detector({0.01, 1.0, 3});
  EXPECT_FALSE(detector.feed(0.0, 100));
  EXPECT_FALSE(detector.feed(0.5, 101));
  const auto held = detector.feed(1.0, 102);
  ASSERT_TRUE(held);
  EXPECT_DOUBLE_EQ(held->value, 101);
  EXPECT_EQ(held->samples, 3);
  EXPECT_DOUBLE_EQ(held->spread, 1);
}

RC_GTEST_PROP(Held, MergingIsAveragingAll, (const std::vector<std::uint16_t>& a, const std::vector<std::uint16_t>& b)) {
  RC_PRE(!a.empty());
  std::deque<double> first(a.begin(), a.end()), second(b.begin(), b.end()), both = first;
  both.insert(both.end(), second.begin(), second.end());
  const HeldValue merge = merged(averaged(first), averaged(second)), all = averaged(both);
  RC_ASSERT(merge.samples == all.samples);
  RC_ASSERT(std::abs(merge.value - all.value) < 1e-6);
  RC_ASSERT(std::abs(merge.spread - all.spread) < 1e-4);
}

TEST(Hold, WaitsForTheSensorToMoveBeforeItTakesAnother) {
  HoldDetector detector({0.01, 0.5, 2});
  detector.feed(0, 100);
  ASSERT_TRUE(detector.feed(0.5, 100));
  EXPECT_TRUE(detector.waiting_for_move());
  for (double t = 1; t < 10; t += 0.5) EXPECT_FALSE(detector.feed(t, 100.5));
  EXPECT_FALSE(detector.feed(10.0, 60)) << "an arm passes over it";
  EXPECT_FALSE(detector.feed(10.5, 104));
  const auto held = detector.feed(11.0, 104);
  ASSERT_TRUE(held);
  EXPECT_DOUBLE_EQ(held->value, 104);
}

TEST(Hold, AToldMoveIsEnough) {
  HoldDetector detector({0.01, 0.5, 2});
  detector.feed(0, 100);
  ASSERT_TRUE(detector.feed(0.5, 100));
  detector.on_its_way();
  EXPECT_FALSE(detector.feed(1, 100));
  EXPECT_FALSE(detector.feed(1.5, 100)) << "nothing counts on the way";
  detector.moved();
  EXPECT_FALSE(detector.feed(2, 100));
  EXPECT_TRUE(detector.feed(2.5, 100));
}

TEST(Hold, AWanderingValueIsNotTaken) {
  HoldDetector detector({0.01, 1.0, 3});
  for (int i = 0; i < 50; ++i) EXPECT_FALSE(detector.feed(i * 0.25, 100 + 3 * i)) << i;
}

TEST(Hold, SilenceBeginsTheHoldAnew) {
  HoldDetector detector({0.01, 1.0, 2});
  EXPECT_FALSE(detector.feed(0, 100));
  EXPECT_FALSE(detector.feed(60, 100)) << "a value from before the silence does not count";
  EXPECT_TRUE(detector.feed(61, 100));
}

TEST(Hold, ProgressTellsHowFarItIs) {
  HoldDetector detector({0.01, 2.0, 2});
  EXPECT_EQ(detector.progress(), 0);
  detector.feed(0, 100);
  detector.feed(1, 100);
  EXPECT_DOUBLE_EQ(detector.progress(), 0.5);
}

TEST(Tape, EveryEndConvertsThereAndBack) {
  const TapeRule floor{TapeEnd::Floor, 0.032, 0}, canopy{TapeEnd::Canopy, 0.032, 0.25}, sensor{};
  EXPECT_DOUBLE_EQ(floor.height_m(0.45), 0.418);
  EXPECT_DOUBLE_EQ(canopy.height_m(0.45), 0.668);
  EXPECT_DOUBLE_EQ(sensor.height_m(0.45), 0.45);
  for (const TapeRule& rule : {floor, canopy, sensor}) EXPECT_NEAR(rule.tape_m(rule.height_m(0.6)), 0.6, 1e-15);
}

TEST(Ladder, ClimbsFromWhatTheEmittersAllow) {
  const auto near = [](const std::vector<double>& a, const std::vector<double>& b) {
    ASSERT_EQ(a.size(), b.size());
    for (std::size_t i = 0; i < a.size(); ++i) EXPECT_NEAR(a[i], b[i], 1e-9);
  };
  near(ladder_heights(2.0, {}), {0.80, 0.60, 0.45, 0.35, 0.25, 0.20, 0.15});
  near(ladder_heights(1.0, 0.2), {0.55, 0.40, 0.30});
  near(heights_around(0.45), {0.60, 0.45, 0.30});
}

TEST(Ladder, ReadsTheMakersHeightFromItsWords) {
  EXPECT_NEAR(*height_in_words("hang 45 cm over the canopy"), 0.45, 1e-12);
  EXPECT_NEAR(*height_in_words("30 to 60cm"), 0.45, 1e-12);
  EXPECT_NEAR(*height_in_words("18 in"), 0.4572, 1e-12);
  EXPECT_NEAR(*height_in_words("about 18\""), 0.4572, 1e-12);
  EXPECT_FALSE(height_in_words("close to the plants").has_value());
  EXPECT_FALSE(height_in_words("45").has_value()) << "a bare number names no length";
}
