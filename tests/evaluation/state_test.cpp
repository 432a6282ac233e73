#include <gtest/gtest.h>

#include "evaluation/configurations.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/retest.h"
#include "evaluation/rig_model.h"
#include "evaluation/shared_parts.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;

namespace {

/// One sweep of 6 × 6 stations, brighter in the middle, times an amount.
TestRecord walked(double amount, double watts, const std::string& sensor = "QS") {
  TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = t.test.fixture_id = t.test.bench_id = 1;
  t.bench.name = "tent";
  t.bench.wall_left = t.bench.wall_right = t.bench.wall_front = t.bench.wall_back = "white";
  t.meters = {{1, "quantum", sensor, "2026-01-10", 1, 0, 2.5}, {2, "wall", "W", "2026-01-10", 1, 0, 1.0}};
  t.test.sensor_id = 1, t.test.wall_meter_id = 2;
  t.test.columns = t.test.rows = 6;
  t.test.tested_on = "2026-03-14";
  t.rungs = {{1, 1, 0.5}};
  t.stops = {{1, 1, 100}};
  Sweep sweep{1, 1, 1, 1, "cells", 6, 6};
  sweep.power_w = watts;
  t.sweeps = {sweep};
  for (int i = 0; i < 36; ++i) {
    const double x = i % 6 - 2.5, y = i / 6 - 2.5;
    t.readings.push_back({i + 1, 1, i, amount * (1 - 0.03 * (x * x + y * y)), "typed", ""});
    t.placements.push_back({i + 1, 1, i, i + 1, ""});
  }
  return t;
}

Temperature at(Id id, const char* place, double c, double percent, double height_m) {
  Temperature t{id, 1, place, "contact", c};
  t.percent = percent;
  t.height_m = height_m;
  t.taken_at = "2026-03-14T10:30:00.000Z";
  return t;
}

bool holds(const std::vector<std::string>& words, const char* part) {
  for (const std::string& w : words)
    if (w.find(part) != std::string::npos) return true;
  return false;
}

}  // namespace

TEST(Retest, ByHandALossBeyondWhatTheSharedSensorLeaves) {
  TestRecord now = walked(564, 302), then = walked(600, 300);
  now.test.hours_run = 2040, then.test.hours_run = 40;
  const Retest r = retest_of(*evaluate(now), *evaluate(then));
  ASSERT_EQ(r.sweeps.size(), 1u);
  EXPECT_NEAR(r.sweeps[0].mean.ratio, 0.94, 1e-9);
  EXPECT_TRUE(r.sweeps[0].mean.beyond());
  EXPECT_NEAR(r.sweeps[0].power.ratio, 302 / 300.0, 1e-9);
  EXPECT_NEAR(r.sweeps[0].efficacy.ratio, 0.94 * 300 / 302, 1e-9);
  ASSERT_TRUE(r.sweeps[0].pattern);
  EXPECT_FALSE(r.sweeps[0].pattern->beyond);
  EXPECT_EQ(r.hours_between, 2000);
  ASSERT_TRUE(r.decay_pct_per_1000h);
  EXPECT_NEAR(r.decay_pct_per_1000h->first, 3, 1e-9) << "6 % in 2,000 h";
  EXPECT_NEAR(r.decay_pct_per_1000h->second, 100 * 0.94 * r.sweeps[0].mean.expanded / 2, 1e-9);
  EXPECT_TRUE(holds(retest_sentences(r, UnitSystem::Metric), "Light fell by 6.0"));
}

TEST(Retest, AnotherSensorCancelsNothingOfItsCalibration) {
  const auto now = evaluate(walked(582, 300)), same = evaluate(walked(600, 300)),
             other = evaluate(walked(600, 300, "another sensor"));
  const Retest shared = retest_of(*now, *same), alone = retest_of(*now, *other);
  EXPECT_TRUE(shared.same_sensor);
  EXPECT_FALSE(alone.same_sensor);
  // Two sensors, each known to 2.5 %, and 1.5 % and 1 % of spectrum and cosine: 2 · √2 · 3 % at least.
  EXPECT_GT(alone.sweeps[0].mean.expanded, 2 * std::sqrt(2.0) * 0.029);
  EXPECT_LT(shared.sweeps[0].mean.expanded, alone.sweeps[0].mean.expanded / 2);
  EXPECT_FALSE(alone.sweeps[0].mean.beyond()) << "3 % is within that";
  EXPECT_TRUE(holds(retest_sentences(alone, UnitSystem::Metric), "different sensors"));
}

TEST(Retest, RecalibratedInBetweenTheCalibrationCountsTwice) {
  TestRecord now = walked(582, 300);
  now.sweeps[0].calibration_factor = 1.02;
  const TestRecord then = walked(600, 300);
  const auto shared = shared_parts(now, now.sweeps[0], then, then.sweeps[0]);
  EXPECT_FALSE(shared("calibration"));
  EXPECT_TRUE(shared("cosine"));
  EXPECT_TRUE(shared("power"));
  EXPECT_TRUE(shared("edges"));
  EXPECT_TRUE(shared("grid"));
  EXPECT_FALSE(shared("height")) << "it was hung anew";
}

TEST(Retest, NoDecayOfAnotherUnitNorOfFewHoursNorOfRenewedLamps) {
  const auto with_hours = [](double hours, const char* unit) {
    TestRecord t = walked(590, 300);
    t.test.hours_run = hours;
    t.test.retest_unit = unit;
    TestRecord then = walked(600, 300);
    then.test.hours_run = 1000;
    return retest_of(*evaluate(t), *evaluate(then));
  };
  EXPECT_TRUE(with_hours(3000, "same").decay_pct_per_1000h);
  EXPECT_FALSE(with_hours(3000, "another").decay_pct_per_1000h);
  EXPECT_FALSE(with_hours(1010, "same").decay_pct_per_1000h);
  EXPECT_FALSE(with_hours(0, "same").decay_pct_per_1000h);
  EXPECT_TRUE(holds(retest_sentences(with_hours(0, "same"), UnitSystem::Metric), "renewed"));
}

TEST(Retest, WhatHasNoCounterpartIsNotCompared) {
  TestRecord now = walked(582, 300);
  now.rungs[0].height_m = 0.53;
  const Retest other_height = retest_of(*evaluate(now), *evaluate(walked(600, 300)));
  EXPECT_TRUE(other_height.sweeps.empty());
  EXPECT_EQ(other_height.alone, 1);
  EXPECT_TRUE(holds(retest_sentences(other_height, UnitSystem::Metric), "Nothing can be held against"));
  now = walked(582, 300);
  now.bench.width_m = 1.3;
  EXPECT_TRUE(retest_of(*evaluate(now), *evaluate(walked(600, 300))).sweeps.empty()) << "another footprint";
}

TEST(HeatByState, BoostOverTheLimitIsSaidSo) {
  TestRecord t;
  t.test.surface_limit_c = 62;
  t.temperatures = {at(1, "air", 22, 100, 0.6), at(2, "driver", 58, 100, 0.6), at(3, "driver", 66, 110, 0.6),
                    at(4, "bar top", 48, 110, 0.6)};
  const auto rows = heat_rows(t, UnitSystem::Metric);
  EXPECT_EQ(rows[1].over_limit, -4);
  EXPECT_EQ(rows[2].over_limit, 4);
  EXPECT_EQ(*rows[2].rise_k, 44);
  EXPECT_FALSE(rows[0].over_limit) << "the air has no limit";
  const auto words = heat_verdicts(t, UnitSystem::Metric);
  EXPECT_TRUE(holds(words, "110 % at 60 cm: driver is 4.0 K over your limit of 62 °C"));
  EXPECT_TRUE(holds(words, "Boost to 110 % is over your limit for surfaces"));
  t.temperatures[2].read_c = 61;
  EXPECT_TRUE(holds(heat_verdicts(t, UnitSystem::Metric), "Boost to 110 % keeps surfaces within your limit"));
  t.test.surface_limit_c.reset();
  EXPECT_TRUE(heat_verdicts(t, UnitSystem::Metric).empty()) << "without a limit nothing is judged";
}

TEST(HeatByState, TheHottestPlaceOfAPictureCounts) {
  TestRecord t;
  t.test.surface_limit_c = 62;
  t.temperatures = {at(1, "driver", 58, 100, 0.6)};
  t.temperatures[0].hottest_c = 64;
  EXPECT_EQ(heat_rows(t, UnitSystem::Metric)[0].over_limit, 2);
}

TEST(HeatByState, CanopyIsJudgedByItsRiseOverTheAir) {
  TestRecord t;
  t.test.canopy_rise_limit_c = 5;
  t.temperatures = {at(1, "air", 22, 100, 0.3), at(2, "swatch", 29, 100, 0.3), at(3, "leaf", 26, 100, 0.6)};
  t.temperatures[1].material = "black";
  const auto rows = heat_rows(t, UnitSystem::Metric);
  EXPECT_EQ(rows[1].place, "swatch (black)");
  EXPECT_EQ(rows[1].over_limit, 2);
  EXPECT_EQ(rows[2].over_limit, -1);
  EXPECT_TRUE(holds(heat_verdicts(t, UnitSystem::Metric),
                    "100 % at 30 cm: swatch (black) is 2.0 K over your limit of 5 K over air"));
  EXPECT_TRUE(holds(heat_verdicts(t, UnitSystem::Imperial), "3.6 °F over your limit of 9 °F over air"))
      << heat_verdicts(t, UnitSystem::Imperial).front();
}

TEST(HeatByState, AHeightThatBringsItWithinTheLimitIsSaidSo) {
  TestRecord t;
  t.test.canopy_rise_limit_c = 5;
  t.temperatures = {at(1, "air", 22, 110, 0.3), at(2, "leaf", 30, 110, 0.3), at(3, "leaf", 25, 110, 0.6),
                    at(4, "leaf", 26, 100, 0.3)};
  const auto words = heat_verdicts(t, UnitSystem::Metric);
  EXPECT_TRUE(holds(words, "At 110 % the canopy stays within your limit from 60 cm up; 30 cm is too near."));
  EXPECT_FALSE(holds(words, "Boost to 110 %")) << "it depends on the height";
  // At one height no other is spoken of.
  t.temperatures.pop_back();
  t.temperatures.pop_back();
  EXPECT_TRUE(holds(heat_verdicts(t, UnitSystem::Metric), "Boost to 110 % is over your limit for the canopy"));
}

TEST(HeatByState, OfTheSettingTheLampWasToldWhereNoneIsNoted) {
  TestRecord t;
  t.lamp_events = {{1, 1, "on", 100, "2026-03-14T09:00:00.000Z"}, {2, 1, "stop", 60, "2026-03-14T10:00:00.000Z"}};
  Temperature driver{1, 1, "driver", "contact", 50};
  driver.taken_at = "2026-03-14T10:30:00.000Z";
  t.temperatures = {driver};
  const auto row = heat_rows(t, UnitSystem::Metric)[0];
  EXPECT_EQ(row.percent, 60);
  EXPECT_NEAR(*row.minutes_on, 90, 1e-6);
}

TEST(HeatByState, OwnSwatchesAreOfferedAgain) {
  Temperature felt{1, 1, "swatch"};
  felt.material = "felt";
  felt.emissivity_true = 0.88;
  const auto all = swatches({felt, felt});
  ASSERT_EQ(all.size(), 7u) << "six, and one's own once";
  EXPECT_EQ(all.back().material, "felt");
  EXPECT_EQ(all.back().emissivity, 0.88);
}

TEST(RigModel, CeilingAndFloorAreAsStatedElseAsUsual) {
  Bench bench;
  bench.wall_left = bench.wall_right = bench.wall_front = bench.wall_back = "reflective";
  EXPECT_EQ(room_of(bench).reflectance.ceiling, 0.7);
  EXPECT_EQ(room_of(bench).reflectance.floor, 0.25);
  bench.ceiling = "open", bench.floor = "white";
  EXPECT_EQ(room_of(bench).reflectance.ceiling, 0);
  EXPECT_EQ(room_of(bench).reflectance.floor, 0.7);
}

TEST(Configurations, EachIsEvaluatedForItself) {
  TestRecord t = walked(600, 300);
  t.configurations = {{1, 1, "new lamp", ""}};
  TestRecord lamp = walked(720, 305);
  t.rungs.push_back({2, 1, 0.5, false, 1});
  t.stops.push_back({2, 1, 100, false, 1});
  Sweep sweep = lamp.sweeps[0];
  sweep.id = sweep.rung_id = sweep.stop_id = 2;
  t.sweeps.push_back(sweep);
  for (Reading r : lamp.readings) {
    r.id += 100, r.sweep_id = 2;
    t.readings.push_back(r);
    t.placements.push_back({r.id, 2, r.station, r.id, ""});
  }
  const Evaluations all = evaluate_all(t);
  ASSERT_EQ(all.size(), 2u);
  EXPECT_EQ(all[0]->views().size(), 1u);
  EXPECT_EQ(all[1]->record().configuration_id, 1);
  EXPECT_NEAR(all[1]->figures(2)->mean_ppfd / all[0]->figures(1)->mean_ppfd, 1.2, 1e-9);
  EXPECT_EQ(evaluate_all(t, UnitSystem::Metric, all[1])[1], all[1]) << "what is known is not worked out again";
}
