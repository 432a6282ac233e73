#include "evaluation/judgement.h"

#include <gtest/gtest.h>

#include <cmath>

#include "book/temporary_book.h"
#include "evaluation/wall_log.h"

namespace sunbreak::book {
using namespace evaluation;
namespace {

/// Two heights of 8 × 8 stations on a bench with everything stated, read from the morning on.
TestRecord stated_bundle() {
  TestRecord b;
  b.test.id = 1;
  b.test.columns = b.test.rows = 8;
  b.test.datum = "diodes";
  b.test.door = "closed";
  b.test.checked_level = b.test.checked_center = "yes";
  b.test.tested_on = "2026-06-01";
  b.bench.wall_left = b.bench.wall_right = b.bench.wall_front = b.bench.wall_back = "white";
  Meter sensor;
  sensor.id = 1;
  sensor.name = "QS-T";
  sensor.calibrated_on = "2025-06-01";
  sensor.uncertainty_pct = 2;
  sensor.receiving_height_m = 0.02;
  Meter wall;
  wall.id = 2;
  wall.kind = "wall";
  wall.name = "W-T";
  wall.uncertainty_pct = 0.5;
  b.meters = {sensor, wall};
  b.test.sensor_id = 1;
  b.test.wall_meter_id = 2;
  b.rungs = {{1, 1, 0.6}, {2, 1, 0.4}};
  b.stops = {{1, 1, 100}};
  Id reading = 0;
  for (Id s = 1; s <= 2; ++s) {
    Sweep sweep;
    sweep.id = s;
    sweep.test_id = 1;
    sweep.rung_id = s;
    sweep.stop_id = 1;
    sweep.columns = sweep.rows = 8;
    sweep.power_w = 200;
    b.sweeps.push_back(sweep);
    for (int i = 0; i < 64; ++i) {
      const double away = std::pow(i % 8 - 3.5, 2) + std::pow(i / 8 - 3.5, 2);
      ++reading;
      b.readings.push_back({reading, s, i,
                            (s == 1 ? 500 : 600) * std::exp(-away / 80) * (1 + 0.004 * std::sin(7.0 * i)), "typed",
                            utc_text(1780300000 + 3600.0 * static_cast<double>(s) + 10 * i)});
      b.placements.push_back({reading, s, i, reading, ""});
    }
  }
  return b;
}

const Sweep& first(const TestRecord& b) { return b.sweeps.front(); }

}  // namespace

TEST(Judgement, TakesStatedUncertaintiesOfTheMeters) {
  const TestRecord b = stated_bundle();
  const SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), views.at(1), views);
  EXPECT_DOUBLE_EQ(q.calibration.value, 0.02);
  EXPECT_EQ(q.calibration.origin, Origin::Stated);
  EXPECT_DOUBLE_EQ(q.power.value, 0.005);
  EXPECT_EQ(q.spectral.origin, Origin::Assumed);
  EXPECT_FALSE(q.spectral.words.empty());
}

TEST(Judgement, TakesTheTestersOwnUncertainties) {
  TestRecord b = stated_bundle();
  b.test.height_uncertainty_m = 0.002;
  b.test.cosine_uncertainty_pct = 3;
  const SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), views.at(1), views);
  EXPECT_DOUBLE_EQ(q.height_m.value, 0.002);
  EXPECT_DOUBLE_EQ(q.cosine.value, 0.03);
  EXPECT_EQ(q.height_m.origin, Origin::Stated);
}

TEST(Judgement, FindsTheHeightSlopeFromTheOtherRung) {
  TestRecord b = stated_bundle();
  SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), views.at(1), views);
  EXPECT_NEAR(q.slope_per_m[9], std::log(600.0 / 500) / -0.2, 1e-9);
  b.rungs.pop_back();
  const BudgetQuestion alone = budget_question(b, first(b), views.at(1), views);
  EXPECT_NEAR(alone.slope_per_m[9], -1 / 0.6, 1e-9);
  EXPECT_NE(alone.height_m.words.find("assumed"), std::string::npos);
}

TEST(Judgement, RepeatsTellHowFarAReadingScatters) {
  TestRecord b = stated_bundle();
  for (int i = 0; i < 20; ++i)
    b.side_readings.push_back({i + 1, 1, 3 * i, "repeat", b.readings[3 * i].raw * (i % 2 ? 1.04 : 0.96), "typed", ""});
  const SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), views.at(1), views);
  // Differences of 4 % between two values each: their standard deviation is 4 % / √2, less what the places explain.
  EXPECT_NEAR(q.repeatability.value, 0.026, 0.003);
  EXPECT_NE(q.repeatability.words.find("20 stations read again"), std::string::npos);
}

TEST(Judgement, SaysWhatIsMissing) {
  const TestRecord b = stated_bundle();
  const SweepViews views = views_of(b);
  const auto judged = judge(b, views, wall_log(b));
  ASSERT_EQ(judged.size(), 2u);
  const Evidence& e = judged.at(1).evidence;
  const auto met = [&](std::string_view id) {
    return std::find_if(e.conditions.begin(), e.conditions.end(), [&](auto& c) { return c.id == id; })->met;
  };
  for (const char* id : {"grid", "complete", "height", "calibration", "walls", "level", "checks"})
    EXPECT_TRUE(met(id)) << id;
  for (const char* id : {"settled", "drift", "watts"}) EXPECT_FALSE(met(id)) << id;
  EXPECT_EQ(e.grade, Grade::Spot) << "three missing";
  EXPECT_EQ(test_grade(judged), Grade::Spot);
  EXPECT_FALSE(test_grade(std::map<Id, Evidence>{}));
  EXPECT_EQ(test_grade(evidence_of(b, views, wall_log(b))), Grade::Spot) << "without the budgets";
}

TEST(Judgement, WattsNotedDuringTheWalkAreOfTheSameState) {
  TestRecord b = stated_bundle();
  const auto watts_met = [&] {
    const auto judged = judge(b, views_of(b), wall_log(b));
    const auto& conditions = judged.at(1).evidence.conditions;
    return std::find_if(conditions.begin(), conditions.end(), [](auto& c) { return c.id == "watts"; })->met;
  };
  WallReading w;
  w.id = 1;
  w.test_id = 1;
  w.sweep_id = 1;
  w.power_w = 200;
  w.taken_at = utc_text(1780300000 + 3600 + 300);
  b.wall_readings = {w};
  EXPECT_TRUE(watts_met());
  b.wall_readings[0].taken_at = utc_text(1780300000 - 7200);
  EXPECT_FALSE(watts_met()) << "two hours before";
}

TEST(Judgement, ATestIsAsGoodAsItsWeakestSweep) {
  std::map<Id, SweepJudgement> judged;
  judged[1].evidence.grade = Grade::Benchmark;
  judged[2].evidence.grade = Grade::Working;
  EXPECT_EQ(test_grade(judged), Grade::Working);
}

TEST(Judgement, AnUnreadSweepIsNotJudged) {
  TestRecord b = stated_bundle();
  std::erase_if(b.placements, [](auto& p) { return p.sweep_id == 2; });
  const auto judged = judge(b, views_of(b), wall_log(b));
  EXPECT_EQ(judged.count(2), 0u);
  EXPECT_EQ(judged.count(1), 1u);
}

}  // namespace sunbreak::book
