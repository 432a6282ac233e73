#include "evaluation/evaluation.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <thread>

#include "core/figures/figure_table.h"
#include "core/uncertainty/budget_words.h"
#include "evaluation/budget_question.h"

namespace sunbreak::evaluation {
namespace {

SweepViews views_of(const TestRecord& b) { return evaluate(b)->views(); }

/// Two heights of 8 × 8 stations on a bench with everything stated, read from the morning on.
TestRecord stated_record() {
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
  sensor.uncertainty_k = wall.uncertainty_k = 2;
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

TEST(Judgement, WhatAnUncertaintyIsQuotedAsIsAssumedWhereNotStated) {
  TestRecord b = stated_record();
  const SweepViews views = views_of(b);
  for (Meter& meter : b.meters) meter.uncertainty_k.reset();
  const BudgetQuestion q = budget_question(b, first(b), *views.at(1), views);
  EXPECT_DOUBLE_EQ(q.calibration.value, 0.02) << "taken as one standard deviation";
  EXPECT_EQ(q.calibration.origin, Origin::Assumed);
  EXPECT_TRUE(q.calibration.words.find("not stated") != std::string::npos) << q.calibration.words;
  EXPECT_TRUE(assumed_words(uncertainty_budget(q)).find("sensor calibration") != std::string::npos)
      << assumed_words(uncertainty_budget(q));
}

TEST(Judgement, ASpectrometerHasUsualSizesOfItsOwn) {
  TestRecord b = stated_record();
  b.meters.front().kind = "spectrometer";
  b.meters.front().uncertainty_pct.reset();
  const SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), *views.at(1), views);
  EXPECT_LT(q.spectral.value, BudgetQuestion().spectral.value) << "it weighs the spectrum right";
  EXPECT_GT(q.calibration.value, BudgetQuestion().calibration.value);
  EXPECT_TRUE(q.cosine.words.find("spectrometer") != std::string::npos);
}

TEST(Judgement, TakesStatedUncertaintiesOfTheMeters) {
  const TestRecord b = stated_record();
  const SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), *views.at(1), views);
  EXPECT_DOUBLE_EQ(q.calibration.value, 0.02);
  EXPECT_EQ(q.calibration.origin, Origin::Stated);
  EXPECT_DOUBLE_EQ(q.power.value, 0.005);
  EXPECT_EQ(q.spectral.origin, Origin::Assumed);
  EXPECT_FALSE(q.spectral.words.empty());
}

TEST(Judgement, TakesTheTestersOwnUncertainties) {
  TestRecord b = stated_record();
  b.test.height_uncertainty_m = 0.002;
  b.test.cosine_uncertainty_pct = 3;
  const SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), *views.at(1), views);
  EXPECT_DOUBLE_EQ(q.height_m.value, 0.002);
  EXPECT_DOUBLE_EQ(q.cosine.value, 0.03);
  EXPECT_EQ(q.height_m.origin, Origin::Stated);
}

TEST(Judgement, FindsTheHeightSlopeFromTheOtherRung) {
  TestRecord b = stated_record();
  SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), *views.at(1), views);
  // Between the two the light falls with the power p of the height; under a disc with R² = h²(2 − p)/p at their middle
  // it falls the faster the higher.
  const double p = std::log(600.0 / 500) / std::log(0.6 / 0.4), x = p / (2 - p) * 0.6 / 0.4;
  EXPECT_NEAR(q.slope_per_m[9], -2 * x / (1 + x) / 0.6, 1e-9);
  b.rungs.pop_back();
  const BudgetQuestion alone = budget_question(b, first(b), *views.at(1), views);
  // The mean falls with the inverse of the height, the middle faster than the corners.
  double light = 0, falling = 0;
  const auto& ppfd = views.at(1)->ppfd;
  for (std::size_t i = 0; i < ppfd.size(); ++i) light += ppfd[i], falling += ppfd[i] * alone.slope_per_m[i];
  EXPECT_NEAR(falling / light, -1 / 0.6, 1e-9);
  EXPECT_LT(alone.slope_per_m[ppfd.size() / 2], alone.slope_per_m[0]);
  EXPECT_NE(alone.height_m.words.find("assumed"), std::string::npos);
}

TEST(Judgement, RepeatsTellHowFarAReadingScatters) {
  TestRecord b = stated_record();
  for (int i = 0; i < 20; ++i)
    b.side_readings.push_back({i + 1, 1, 3 * i, "repeat", b.readings[3 * i].raw * (i % 2 ? 1.04 : 0.96), "typed", ""});
  const SweepViews views = views_of(b);
  const BudgetQuestion q = budget_question(b, first(b), *views.at(1), views);
  // Differences of 4 % between two values each: their standard deviation is 4 % / √2. What was read once scatters less.
  b.side_readings.clear();
  const SweepViews alone = views_of(b);
  const double once = budget_question(b, first(b), *alone.at(1), alone).repeatability.value;
  EXPECT_GT(q.repeatability.value, 2 * once);
  EXPECT_LT(q.repeatability.value, 0.04 / std::sqrt(2));
  EXPECT_NE(q.repeatability.words.find("20 stations read again"), std::string::npos);
}

TEST(Judgement, SaysWhatIsMissing) {
  const TestRecord b = stated_record();
  const auto evaluation = evaluate(b);
  const Evidence& e = *evaluation->evidence(1);
  const auto met = [&](std::string_view id) {
    return std::find_if(e.conditions.begin(), e.conditions.end(), [&](auto& c) { return c.id == id; })->met;
  };
  for (const char* id : {"grid", "complete", "height", "calibration", "walls", "level", "checks"})
    EXPECT_TRUE(met(id)) << id;
  for (const char* id : {"settled", "drift", "watts"}) EXPECT_FALSE(met(id)) << id;
  EXPECT_EQ(e.grade, Grade::Spot) << "three missing";
  EXPECT_EQ(evaluation->grade(), Grade::Spot);
  EXPECT_FALSE(evaluate(TestRecord{})->grade());
}

TEST(Judgement, WattsNotedDuringTheWalkAreOfTheSameState) {
  TestRecord b = stated_record();
  const auto watts_met = [&] {
    const auto evaluation = evaluate(b);
    const auto& conditions = evaluation->evidence(1)->conditions;
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
  TestRecord b = stated_record();
  b.wall_readings = {{1, 1, 1, 200, {}, {}, {}, {}, {}, {}, utc_text(1780300000 + 3600 + 300)}};
  const auto evaluation = evaluate(b);
  EXPECT_EQ(evaluation->evidence(1)->grade, Grade::Working) << "watts were noted during its walk";
  EXPECT_EQ(evaluation->evidence(2)->grade, Grade::Spot);
  EXPECT_EQ(evaluation->grade(), Grade::Spot);
}

TEST(Judgement, AnUnreadSweepIsNotJudged) {
  TestRecord b = stated_record();
  std::erase_if(b.placements, [](auto& p) { return p.sweep_id == 2; });
  const auto evaluation = evaluate(b);
  EXPECT_EQ(evaluation->evidence(2), nullptr);
  EXPECT_EQ(evaluation->budget(2), nullptr);
  EXPECT_EQ(evaluation->figures(2), nullptr);
  EXPECT_NE(evaluation->budget(1), nullptr);
  EXPECT_EQ(evaluation->budget(99), nullptr) << "no such sweep";
  EXPECT_EQ(evaluation->view(99), nullptr);
}

TEST(Evaluation, WorksOutOnlyWhatIsAskedFor) {
  const auto evaluation = evaluate(stated_record());
  EXPECT_NEAR(evaluation->figures(1)->mean_ppfd, 500 * 0.938 * 0.938, 0.5) << "mean of exp(-d²/80), squared";
  EXPECT_EQ(evaluation->budget_so_far(1), nullptr);
  EXPECT_EQ(evaluation->evidence_so_far(1), nullptr);
  EXPECT_EQ(evaluation->findings_so_far(1), nullptr);
  EXPECT_NE(evaluation->budget(1), nullptr);
  EXPECT_NE(evaluation->budget_so_far(1), nullptr);
  EXPECT_EQ(evaluation->budget_so_far(2), nullptr) << "no one asked for the other";
  EXPECT_EQ(evaluation->figures(1), evaluation->figures(1)) << "kept where it is";
}

TEST(Evaluation, WhatIsGivenUpIsNotKept) {
  const auto evaluation = evaluate(stated_record());
  std::stop_source stop;
  stop.request_stop();
  EXPECT_EQ(evaluation->budget(1, stop.get_token()), nullptr);
  EXPECT_EQ(evaluation->budget_so_far(1), nullptr);
  EXPECT_TRUE(std::isfinite(evaluation->budget(1)->expanded("mean_ppfd")));
}

TEST(Evaluation, ManyThreadsGetTheSameAnswer) {
  const auto evaluation = evaluate(stated_record());
  std::vector<std::thread> threads;
  std::array<const Budget*, 4> budgets{};
  for (auto& budget : budgets)
    threads.emplace_back([&] {
      evaluation->all_findings();
      evaluation->grade();
      budget = evaluation->budget(1);
    });
  for (std::thread& thread : threads) thread.join();
  for (const Budget* budget : budgets) EXPECT_EQ(budget, budgets[0]);
}

TEST(Evaluation, EachHeightIsJudgedByItsOwnHangResponse) {
  TestRecord b = stated_record();
  for (Placement& p : b.placements)  // of both sweeps only the probe is read
    if (const int i = p.station; i != 0 && i != 7 && i != 56 && i != 63 && i != 27 && i != 28 && i != 35 && i != 36)
      p.station = -1;
  const auto evaluation = evaluate(b);
  const HangResponse high = evaluation->hang(1), low = evaluation->hang(2);
  EXPECT_NE(high.right_over_left_per_deg, 0);
  EXPECT_NE(high.right_over_left_per_deg, low.right_over_left_per_deg);
  EXPECT_EQ(evaluate(stated_record())->hang(1).right_over_left_per_deg, 0) << "a finished sweep asks for none";
}

namespace {

/// All figures of a sweep, 0 for those it does not have.
std::vector<double> values_of(const Evaluation& evaluation, Id id) {
  const SweepView& view = *evaluation.view(id);
  std::vector<double> values = figure_values({view.layout, view.ppfd, *evaluation.figures(id)});
  for (double& value : values)
    if (std::isnan(value)) value = 0;
  return values;
}

void expect_alike(const Evaluation& a, const Evaluation& b, const std::string& when) {
  ASSERT_EQ(a.views().size(), b.views().size()) << when;
  for (const auto& [id, view] : a.views()) {
    ASSERT_NE(b.view(id), nullptr) << when;
    for (std::size_t i = 0; i < view->ppfd.size(); ++i)
      ASSERT_TRUE(view->ppfd[i] == b.view(id)->ppfd[i] ||
                  (std::isnan(view->ppfd[i]) && std::isnan(b.view(id)->ppfd[i])))
          << when;
    ASSERT_EQ(a.figures(id) != nullptr, b.figures(id) != nullptr) << when;
    if (!a.figures(id)) continue;
    EXPECT_EQ(values_of(a, id), values_of(b, id)) << when;
    EXPECT_EQ(a.findings(id), b.findings(id)) << when;
    EXPECT_EQ(a.walked(id).words, b.walked(id).words) << when;
    EXPECT_EQ(a.budget(id)->standard, b.budget(id)->standard) << when;
    EXPECT_EQ(a.evidence(id)->conditions, b.evidence(id)->conditions) << when;
  }
  EXPECT_EQ(a.all_findings(), b.all_findings()) << when;
  EXPECT_EQ(a.light_range(), b.light_range()) << when;
  EXPECT_EQ(a.grade(), b.grade()) << when;
}

}  // namespace

TEST(Evaluation, WhatIsTakenOverIsWhatWouldComeOutAnew) {
  std::mt19937 random(7);
  const auto any = [&](int from, int to) { return std::uniform_int_distribution(from, to)(random); };
  TestRecord b = stated_record();
  b.wall_readings = {{1, 1, {}, 200, {}, {}, {}, {}, {}, {}, utc_text(1780300000)}};
  auto evaluation = evaluate(b);
  for (int step = 0; step < 25; ++step) {
    expect_alike(*evaluation, *evaluate(b), "before step " + std::to_string(step));
    std::set<Id> touched;
    switch (any(0, 9)) {
      case 0:
      case 1: {
        Placement& p = b.placements[static_cast<std::size_t>(any(0, 127))];
        b.readings[static_cast<std::size_t>(p.id - 1)].raw *= 1.1;
        touched.insert(p.sweep_id);
        break;
      }
      case 2:
        b.test.photoperiod_h = any(8, 18);
        break;
      case 3:
        b.meters[0].uncertainty_pct = any(1, 5);
        break;
      case 4:
        b.rungs[static_cast<std::size_t>(any(0, 1))].height_m = 0.3 + 0.05 * any(0, 9);
        break;
      case 5:
        b.sweeps[0].power_w = 150.0 + any(0, 50);
        break;
      case 6:
        b.sweeps[1].calibration_factor = 1 + 0.01 * any(0, 5);
        break;
      case 7:
        b.bench.width_m = 1 + 0.1 * any(0, 5);
        break;
      case 8:
        b.lamp_events.push_back({step + 1, 1, "on", 100, utc_text(1780300000 - 60.0 * step)});
        b.dismissals.push_back({step + 1, 1, {}, "door open", "", "", "", utc_text(1780300000)});
        break;
      default:
        b.fixture.emitter_spacing_m = 0.05 * any(1, 9);
        b.meters[0].range_max = 400.0 + 50 * any(0, 9);
    }
    evaluation = evaluate(b, nullptr, UnitSystem::Metric, evaluation.get(), &touched);
  }
}

}  // namespace sunbreak::evaluation
