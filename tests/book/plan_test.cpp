#include <gtest/gtest.h>

#include "book/settle_plan.h"
#include "temporary_book.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::book;

TEST(NewTest, TakesBenchMetersAndMainsFromTheLastOne) {
  TemporaryBook book;
  const Id first = book.add_test();
  book->edit("details", [&](Edit& e) {
    Meter meter;
    meter.name = "sensor";
    record::Test test = *book->find<record::Test>(first);
    test.sensor_id = e.add(meter);
    test.mains_v = 230;
    test.tested_by = "volunteer on duty";
    e.save(test);
  });
  const TestRecord next = book.test_record(book.add_test());
  EXPECT_EQ(next.bench.id, book.test_record(first).bench.id);
  EXPECT_EQ(next.meters.size(), 1u);
  EXPECT_EQ(next.test.mains_v, 230);
  EXPECT_EQ(next.test.tested_by, "volunteer on duty");
  EXPECT_NE(next.fixture.id, book.test_record(first).fixture.id) << "each new test brings a fixture of its own";
}

TEST(NewTest, BeginsAtRoundLengthsInWhatIsMeasuredIn) {
  TemporaryBook metric, imperial;
  const TestRecord cm = metric.test_record(new_test(*metric)),
                   in = imperial.test_record(new_test(*imperial, UnitSystem::Imperial));
  EXPECT_EQ(cm.bench.width_m, 1.2);
  EXPECT_EQ(cm.rungs.front().height_m, 0.45);
  EXPECT_NEAR(in.bench.width_m, 48 * 0.0254, 1e-12);
  EXPECT_NEAR(in.bench.depth_m, 48 * 0.0254, 1e-12);
  EXPECT_NEAR(in.rungs.front().height_m, 18 * 0.0254, 1e-12);
}

TEST(ChooseFixture, WhatWasKnownOfTheOthersLightGoesWithIt) {
  TemporaryBook book;
  const Id test = book.add_test();
  Id other = 0;
  book->edit("a lux meter and its factor", [&](Edit& e) {
    Meter meter;
    meter.kind = "lux", meter.name = "pocket lux meter";
    meter.id = e.add(meter);
    FittedLuxFactor factor;
    factor.meter_id = meter.id, factor.k = 0.016, factor.light_class = "white";
    factor.id = e.add(factor);
    choose_sensor(e, book.test_record(test), meter);
    record::Test changed = *book->find<record::Test>(test);
    changed.light_class = "white";
    e.save(changed);
    const TestRecord with = book.test_record(test);
    choose_lux_factor(e, with, factor);
    sweep_for(e, book.test_record(test), with.rungs[0].id, with.stops[0].id);
    Fixture tubes;
    tubes.name = "tubes";
    other = e.add(tubes);
  });
  ASSERT_EQ(book.test_record(test).sweeps.front().lux_k, 0.016);
  const Id same = book.test_record(test).fixture.id;
  book->edit("the same", [&](Edit& e) { choose_fixture(e, book.test_record(test), same); });
  EXPECT_TRUE(book.test_record(test).test.lux_factor_id);
  book->edit("another", [&](Edit& e) { choose_fixture(e, book.test_record(test), other); });
  const TestRecord now = book.test_record(test);
  EXPECT_EQ(now.fixture.id, other);
  EXPECT_FALSE(now.test.lux_factor_id);
  EXPECT_EQ(now.test.light_class, "");
  EXPECT_FALSE(now.sweeps.front().lux_k) << "nor does a sweep that was begun keep it";
}

TEST(NewTest, IsNamedAfterFixtureAndBenchUntilItHasAName) {
  TemporaryBook book;
  TestRecord b = book.test_record(book.add_test());
  EXPECT_EQ(title_of(b), "New fixture on New bench");
  b.test.name = "Spring round";
  EXPECT_EQ(title_of(b), "Spring round");
}

TEST(PlanHeights, KeepsWhatIsThereAndSortsHighestFirst) {
  TemporaryBook book;
  const Id test = book.add_test();
  const Id kept = book.test_record(test).rungs[0].id;
  ASSERT_FALSE(plan_heights(*book, book.test_record(test), {0.3, 0.45, 0.6, 0.6}).has_value());
  const TestRecord b = book.test_record(test);
  ASSERT_EQ(b.rungs.size(), 3u) << "a height given twice is one rung";
  EXPECT_EQ(b.rungs[0].height_m, 0.6);
  EXPECT_EQ(b.rungs[1].id, kept);
}

TEST(PlanHeights, RefusesWhatDoesNotFitInTheBench) {
  TemporaryBook book;
  const Id test = book.add_test();
  book->edit("height", [&](Edit& e) {
    Bench bench = book.test_record(test).bench;
    bench.height_m = 1.6;
    e.save(bench);
  });
  EXPECT_TRUE(plan_heights(*book, book.test_record(test), {0.45, 1.8}).has_value());
  EXPECT_TRUE(plan_heights(*book, book.test_record(test), {}).has_value());
  EXPECT_TRUE(plan_heights(*book, book.test_record(test), {0.0}).has_value());
  EXPECT_EQ(book.test_record(test).rungs.size(), 1u);
}

TEST(PlanStops, RefusesWhatNoDialHas) {
  TemporaryBook book;
  const Id test = book.add_test();
  for (const std::vector<double>& percents : {std::vector<double>{}, {0.0}, {250.0}, {100, -10}})
    EXPECT_TRUE(plan_stops(*book, book.test_record(test), percents).has_value());
  EXPECT_FALSE(plan_stops(*book, book.test_record(test), {110, 100, 60}).has_value());
  EXPECT_EQ(book.test_record(test).stops.size(), 3u);
}

TEST(PlanGrid, AnImpossibleOneChangesNothing) {
  TemporaryBook book;
  const Id test = book.add_test();
  const TestRecord before = book.test_record(test);
  EXPECT_TRUE(plan_grid(*book, before, {GridKind::Inset, 6, 6, 0.7, 0.7, {}}).has_value());
  EXPECT_EQ(book.test_record(test), before);
}

TEST(PlanGrid, SpotsComeBackFromTheBook) {
  TemporaryBook book;
  const Id test = book.add_test();
  const Grid spots{GridKind::Spots, 0, 0, 0, 0, {{"under bar 3", 0.4, 0.6}, {"corner \"A\"", 0.05, 0.05}}};
  ASSERT_FALSE(plan_grid(*book, book.test_record(test), spots).has_value());
  book.close();
  book.open();
  EXPECT_EQ(grid_of(book.test_record(test).test), spots);
}

TEST(PlanHeights, ARungWithoutReadingsGoesWithAllThatHangsOnItsSweep) {
  TemporaryBook book;
  const Id test = book.add_test();
  ASSERT_FALSE(plan_heights(*book, book.test_record(test), {0.6, 0.45}).has_value());
  const TestRecord planned = book.test_record(test);
  book->edit("before the first reading", [&](Edit& e) {
    const Id sweep = sweep_for(e, planned, planned.rungs[1].id, planned.stops[0].id).id;
    e.add(SideReading{0, sweep, 14, "reference", 700, "typed", utc_now()});
    e.add(WallReading{0, test, sweep, 320, {}, {}, {}, {}, {}, {}, utc_now()});
    e.add(Dismissal{0, test, sweep, "under zero", "3", "saw", "reason", utc_now()});
    e.declare_missing(sweep, 3, "behind the pole");
  });
  const TestRecord full = book.test_record(test);
  ASSERT_FALSE(plan_heights(*book, full, {0.6}).has_value());
  const TestRecord left = book.test_record(test);
  EXPECT_EQ(left.rungs.size(), 1u);
  EXPECT_TRUE(left.sweeps.empty() && left.side_readings.empty() && left.wall_readings.empty() &&
              left.dismissals.empty() && left.placements.empty());
  book->undo();
  EXPECT_EQ(book.test_record(test), full);
}

TEST(PlanConfirmation, StandsBesideThePlanAndIsMadeOnce) {
  TemporaryBook book;
  const Id test = book.add_test();
  ASSERT_FALSE(plan_heights(*book, book.test_record(test), {0.6, 0.45}).has_value());
  const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, 6, 6, 0, 0, {}}).value();
  std::vector<double> predicted;
  for (const Station& s : layout.stations) predicted.push_back(500 + 100 * s.x_m);
  const std::size_t planned = book.test_record(test).planned_sweeps();
  const auto there = plan_confirmation(*book, book.test_record(test), 0.52, 63.4, predicted, layout);
  ASSERT_TRUE(there);
  const TestRecord record = book.test_record(test);
  EXPECT_EQ(record.planned_sweeps(), planned);
  const Sweep* sweep = record.sweep(there.value().first, there.value().second);
  ASSERT_TRUE(sweep && sweep->confirms);
  const auto spots = grid_of(*sweep).spots;
  EXPECT_GE(spots.size(), 5u);
  EXPECT_LE(spots.size(), 9u);
  EXPECT_EQ(spots.front().name, "center");
  EXPECT_TRUE(record.rung(there.value().first)->extra);
  EXPECT_EQ(plan_confirmation(*book, record, 0.52, 63.4, predicted, layout).value(), there.value());
  // A change of the plan leaves it alone; its height may join the plan.
  ASSERT_FALSE(plan_heights(*book, record, {0.6}).has_value());
  EXPECT_TRUE(book.test_record(test).sweep(there.value().first, there.value().second));
  ASSERT_FALSE(plan_grid(*book, book.test_record(test), {GridKind::Cells, 4, 4, 0, 0, {}}).has_value());
  EXPECT_EQ(grid_of(*book.test_record(test).sweep(there.value().first, there.value().second)).spots.size(),
            spots.size());
  ASSERT_FALSE(plan_heights(*book, book.test_record(test), {0.6, 0.52}).has_value());
  EXPECT_FALSE(book.test_record(test).rung(there.value().first)->extra);
  // Where the plan's own sweep stands there is nothing to confirm.
  book->edit("a sweep", [&](Edit& e) {
    const TestRecord now = book.test_record(test);
    sweep_for(e, now, now.rungs.front().id, now.planned_stops().front().id);
  });
  const TestRecord now = book.test_record(test);
  const auto refused =
      plan_confirmation(*book, now, now.rungs.front().height_m, now.planned_stops().front().percent, predicted, layout);
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.problem().means, "there is nothing to confirm");
}
