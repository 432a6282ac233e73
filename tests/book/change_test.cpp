#include "book/change.h"

#include <gtest/gtest.h>

#include <random>

#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::book;

namespace {

/// A book with two tests on one bench; remembers what its last change touched.
struct Watched {
  Watched() {
    ours = book.add_test();
    other = book.add_test();
    book->on_change = [this](const Change& change) { last = change; };
  }
  Id sweep_of(Id test) {
    const TestRecord b = book.test_record(test);
    Id id = 0;
    book->edit("sweep", [&](Edit& e) { id = sweep_for(e, b, b.rungs[0].id, b.stops[0].id).id; });
    return id;
  }
  TemporaryBook book;
  Id ours = 0, other = 0;
  Change last;
};

}  // namespace

TEST(Change, AReadingTouchesItsTestAndSweepAlone) {
  Watched w;
  const Id sweep = w.sweep_of(w.ours);
  EXPECT_EQ(w.last.tests, std::set<Id>{w.ours});
  w.book.read(sweep, 3, 512);
  EXPECT_EQ(w.last.tests, std::set<Id>{w.ours});
  EXPECT_EQ(w.last.sweeps, std::set<Id>{sweep});
  EXPECT_TRUE(w.last.shelves.empty());
  w.book->undo();
  EXPECT_EQ(w.last.tests, std::set<Id>{w.ours});
  EXPECT_EQ(w.last.sweeps, std::set<Id>{sweep});
}

TEST(Change, AShelfIsNamedWithoutATest) {
  Watched w;
  Fixture fixture = w.book.test_record(w.ours).fixture;
  fixture.name = "Ostler Six-Bar";
  w.book->edit("name", [&](Edit& e) { e.save(fixture); });
  EXPECT_EQ(w.last.shelves, std::set<std::string_view>{"fixture"});
  EXPECT_TRUE(w.last.tests.empty());
  w.book->edit("claim", [&](Edit& e) { e.add(Claim{0, fixture.id, "power_w", 320, ""}); });
  EXPECT_EQ(w.last.shelves, std::set<std::string_view>{"claim"});
}

TEST(Change, WhatGoesWithASweepStillNamesItsTest) {
  Watched w;
  const Id sweep = w.sweep_of(w.ours);
  w.book->edit("missing", [&](Edit& e) { e.declare_missing(sweep, 3, "pole"); });
  w.book->edit("gone", [&](Edit& e) { e.erase<Sweep>(sweep); });
  EXPECT_EQ(w.last.tests, std::set<Id>{w.ours});
  EXPECT_TRUE(w.last.sweeps.contains(sweep));
}

TEST(RefreshTest, AlwaysGivesWhatReadingAnewWould) {
  for (unsigned seed = 1; seed <= 6; ++seed) {
    Watched w;
    std::mt19937 random(seed);
    const auto any = [&](int from, int to) { return std::uniform_int_distribution(from, to)(random); };
    w.book->forget_history();
    TestRecord kept = w.book.test_record(w.ours);
    w.book->on_change = [&](const Change& change) {
      ASSERT_TRUE(refresh_test(kept, *w.book, change));
      ASSERT_EQ(kept, w.book.test_record(w.ours)) << "seed " << seed;
    };
    for (int step = 0; step < 120; ++step) {
      const Id test = any(0, 4) ? w.ours : w.other;
      const TestRecord b = w.book.test_record(test);
      const auto& rung = b.rungs[static_cast<std::size_t>(any(0, static_cast<int>(b.rungs.size()) - 1))];
      switch (any(0, 11)) {
        case 0:
        case 1:
        case 2:
          w.book->edit("reading", [&](Edit& e) {
            e.accept({0, sweep_for(e, b, rung.id, b.stops[0].id).id, any(0, 35), 500.0 + step, "typed", utc_now()});
          });
          break;
        case 3:
          w.book->edit("missing", [&](Edit& e) {
            e.declare_missing(sweep_for(e, b, rung.id, b.stops[0].id).id, any(0, 35), "pole");
          });
          break;
        case 4:
          if (!b.sweeps.empty()) w.book->edit("clear", [&](Edit& e) { e.clear_station(b.sweeps[0].id, any(0, 35)); });
          break;
        case 5:
          plan_heights(*w.book, b, {0.3, 0.45, 0.3 + 0.05 * any(0, 9)});
          break;
        case 6:
          w.book->edit("fixture", [&](Edit& e) {
            Fixture fixture = b.fixture;
            fixture.notes = std::to_string(step);
            e.save(fixture);
            e.add(Claim{0, fixture.id, "power_w", 100.0 + step, ""});
          });
          break;
        case 7:
          w.book->edit("sensor", [&](Edit& e) {
            Meter meter;
            meter.name = "sensor " + std::to_string(step);
            record::Test changed = b.test;
            changed.sensor_id = e.add(meter);
            if (any(0, 3) == 0) {
              Bench bench;
              bench.name = "bench";
              changed.bench_id = e.add(bench);
            }
            e.save(changed);
          });
          break;
        case 8:
          w.book->edit("event", [&](Edit& e) {
            e.add(LampEvent{0, test, "on", 100, utc_text(1e9 + any(0, 1000))});
            e.add(Dismissal{0, test, {}, "door open", "", "saw", "reason", utc_now()});
          });
          break;
        case 9:
          w.book->redo();
          break;
        default:
          w.book->undo();
      }
    }
  }
}

TEST(RefreshTest, AManyRowedChangeAndATestThatIsGone) {
  Watched w;
  const Id sweep = w.sweep_of(w.ours);
  TestRecord kept = w.book.test_record(w.ours);
  w.book->edit("many", [&](Edit& e) {
    for (int i = 0; i < 36; ++i) e.accept({0, sweep, i, 500.0 + i, "pasted", utc_now()});
    for (int i = 0; i < 36; ++i) e.add(Dismissal{0, w.ours, {}, "rule", std::to_string(i), "", "", utc_now()});
  });
  EXPECT_GT(w.last.rows.size(), 64u);
  EXPECT_TRUE(refresh_test(kept, *w.book, w.last));
  EXPECT_EQ(kept, w.book.test_record(w.ours));
  while (w.book->undo()) {
  }
  EXPECT_FALSE(refresh_test(kept, *w.book, w.last)) << "setting the test up was undone";
}
