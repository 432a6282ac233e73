#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "core/spectrum/color.h"
#include "evaluation/check_lamps.h"
#include "evaluation/evaluation.h"
#include "evaluation/evidence_facts.h"
#include "evaluation/lineup/lamp_ways.h"
#include "evaluation/lineup/lineup_entry.h"
#include "evaluation/lineup/lineup_figures.h"
#include "evaluation/lux_walk.h"
#include "evaluation/paired_sweeps.h"
#include "evaluation/sensor_spectrum.h"
#include "record/faults.h"
#include "record/plan_grid.h"
#include "record/spectrum_samples.h"
#include "record/utc.h"

namespace sunbreak::evaluation {
namespace {

using namespace record;

constexpr double first_day_s = 1'767'600'000, a_day_s = 86'400;

/// A test of one sweep of 4 × 4 stations by the sensor QS, on day 40.
TestRecord small_test() {
  TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = t.test.fixture_id = t.test.bench_id = 1;
  t.fixture.name = "Bars";
  t.meters = {{1, "quantum", "QS", "2026-01-02"}, {2, "quantum", "QS-B", "2026-01-02"}};
  t.test.sensor_id = 1;
  t.test.tested_on = utc_text(first_day_s + 40 * a_day_s).substr(0, 10);
  t.rungs = {{1, 1, 0.5}};
  t.stops = {{1, 1, 100}};
  t.sweeps = {{1, 1, 1, 1, "cells", 4, 4}};
  for (int i = 0; i < 16; ++i) {
    t.readings.push_back({i + 1, 1, i, 500 + 10.0 * (i % 4), "typed", ""});
    t.placements.push_back({i + 1, 1, i, i + 1, ""});
  }
  return t;
}

/// Readings of days 0 to `days`: QS moves by `step` from day `since` on; QS-B stays.
void read_lamp(TestRecord& t, int days, int since, double step, bool second_meter) {
  for (int day = 0; day < days; ++day)
    for (const Id meter : {1, 2}) {
      if (meter == 2 && !second_meter) continue;
      const double wobble = 1 + 0.002 * std::sin(7.3 * day + 2.9 * static_cast<double>(meter));
      const double level = (meter == 1 && day >= since ? 1 + step : 1) * wobble;
      CheckLampReading row;
      row.id = std::ssize(t.check_readings) + 1;
      row.meter_id = meter;
      row.lamp = "lamp A";
      row.taken_at = utc_text(first_day_s + day * a_day_s + static_cast<double>(meter));
      row.light = text_of_numbers({300 * level, 250 * level, 251 * level});
      t.check_readings.push_back(row);
    }
}

TEST(CheckLampsOfTests, TellASensorThatMovedOnEveryTestSinceAndOnNoneBefore) {
  TestRecord t = small_test();
  read_lamp(t, 40, 20, -0.018, true);
  const auto moved = sensor_moved(t);
  ASSERT_TRUE(moved);
  EXPECT_EQ(moved->mover, Mover::Sensor);
  EXPECT_EQ(moved->who, "QS");
  EXPECT_NEAR(moved->change, -0.018, moved->expanded);
  const auto check = moved_sensor_check(t);
  ASSERT_TRUE(check);
  EXPECT_EQ(check->id, "sensor moved");
  EXPECT_NE(check->saw.find("since " + utc_text(first_day_s + 20 * a_day_s).substr(0, 10)), std::string::npos)
      << check->saw;
  const auto all = evaluate(t)->all_findings();
  EXPECT_TRUE(std::ranges::any_of(all, [](const TestFinding& f) { return f.check.id == "sensor moved"; }));
  t.test.tested_on = utc_text(first_day_s + 10 * a_day_s).substr(0, 10);
  EXPECT_FALSE(moved_sensor_check(t)) << "the test is older than the move";
  t.test.tested_on = utc_text(first_day_s + 40 * a_day_s).substr(0, 10);
  t.test.sensor_id = 2;
  EXPECT_FALSE(moved_sensor_check(t)) << "the other sensor is as it was";
}

TEST(CheckLampsOfTests, DoNotTellSensorFromLampByOneOfEach) {
  TestRecord t = small_test();
  read_lamp(t, 40, 20, -0.018, false);
  const auto check = moved_sensor_check(t);
  ASSERT_TRUE(check);
  EXPECT_EQ(check->id, "check lamp moved");
  EXPECT_NE(check->saw.find("which of the two moved is not told"), std::string::npos);
}

TEST(CheckLampsOfTests, AReadingThatIsThereTwiceCountsOnce) {
  TestRecord t = small_test();
  read_lamp(t, 40, 20, -0.018, false);
  // The same lab book's package came back: its meter and readings stand there again under other ids.
  t.meters.push_back({3, "quantum", "QS", "2026-01-02"});
  for (CheckLampReading row : std::vector(t.check_readings)) {
    row.id += 1000, row.meter_id = 3;
    t.check_readings.push_back(row);
  }
  const auto board = lamp_board(t.check_readings, t.meters);
  ASSERT_TRUE(board);
  EXPECT_EQ(board.value().readings.size(), 40u);
  ASSERT_EQ(board.value().charts.size(), 1u) << "no second meter confirms it";
}

TEST(CheckLampsOfTests, TheCorrectionMovesTheLightAndAddsToItsBudget) {
  TestRecord t = small_test();
  read_lamp(t, 40, 20, -0.02, true);
  const auto before = evaluate(t);
  const DriftCorrection c = drift_correction(*sensor_moved(t));
  EXPECT_NEAR(c.factor, 1 / 0.98, 0.003);
  t.sweeps[0].moved_factor = c.factor;
  t.sweeps[0].moved_uncertainty_pct = 100 * c.standard_uncertainty;
  const auto after = evaluate(t);
  EXPECT_NEAR(after->figures(1)->mean_ppfd, c.factor * before->figures(1)->mean_ppfd, 1e-9);
  EXPECT_GT(after->budget(1)->relative("mean_ppfd"), before->budget(1)->relative("mean_ppfd"));
  EXPECT_FALSE(moved_sensor_check(t)) << "it is corrected";
}

Spectrum lamp(double red) {
  Spectrum light;
  for (int nm = 350; nm <= 800; nm += 2) {
    const auto hump = [&](double center, double sigma) { return std::exp(-std::pow((nm - center) / sigma, 2) / 2); };
    light.wavelengths_nm.push_back(nm);
    light.values.push_back(0.6 * hump(451, 9) + 0.8 * hump(575, 50) + red * hump(660, 9) + 0.6 * red * hump(735, 12));
  }
  return light;
}

void measure(TestRecord& t, const Spectrum& light) {
  MeasuredSpectrum row;
  row.id = row.test_id = 1;
  put_spectrum(row, light);
  t.spectra = {row};
}

TEST(SensorUnderALight, IsFoundWhereItCountsFarRedAndCorrectedByTheFactor) {
  TestRecord t = small_test();
  EXPECT_FALSE(spectral_correction_here(t)) << "its response is not known";
  // A sensor that sees on to 760 nm counts far red as if it were PPFD.
  put_response(t.meters[0], {{380, 400, 700, 750, 770}, {0, 1, 1, 1, 0}});
  EXPECT_FALSE(*spectral_correction_here(t)) << "neither light is known";
  Spectrum tungsten;
  for (int nm = 300; nm <= 900; nm += 5)
    tungsten.wavelengths_nm.push_back(nm), tungsten.values.push_back(planckian_power(2856, nm));
  put_reference_light(t.meters[0], tungsten);
  measure(t, lamp(2));
  const auto told = spectral_correction_here(t);
  ASSERT_TRUE(told && *told);
  const double f = told->value().factor;
  EXPECT_GT(std::fabs(f - 1), 0.02);
  const auto check = spectral_check(t);
  ASSERT_TRUE(check);
  EXPECT_EQ(check->id, "sensor and spectrum");
  t.sweeps[0].spectral_factor = f;
  EXPECT_FALSE(spectral_check(t));
  EXPECT_NEAR(evaluate(t)->figures(1)->mean_ppfd, 515 * f, 1e-6);
}

FittedLuxFactor factor_under(const Spectrum* light, std::optional<Id> fixture, const char* light_class) {
  FittedLuxFactor f;
  f.id = 1, f.meter_id = 3;
  f.name = "k", f.fixture_id = fixture, f.light_class = light_class;
  f.k = 0.017, f.k_expanded = 0.0004, f.lowest_lux = 2000, f.highest_lux = 32000;
  if (light) put_light(f, *light);
  return f;
}

constexpr Id here = 1, elsewhere = 2;

TEST(LuxWalks, TakeAFactorOnlyUnderItsOwnLight) {
  TestRecord t = small_test();
  const Spectrum white = lamp(0.02), red = lamp(2);
  EXPECT_FALSE(lux_factor_refused(t, factor_under(nullptr, here, ""))) << "found under this fixture";
  EXPECT_TRUE(lux_factor_refused(t, factor_under(nullptr, elsewhere, "white"))) << "the class is not stated here";
  t.test.light_class = "white";
  EXPECT_FALSE(lux_factor_refused(t, factor_under(nullptr, elsewhere, "white")));
  EXPECT_TRUE(lux_factor_refused(t, factor_under(nullptr, elsewhere, "red and blue")));
  measure(t, red);
  EXPECT_TRUE(lux_factor_refused(t, factor_under(&white, here, "white"))) << "spectra go before words";
  EXPECT_FALSE(lux_factor_refused(t, factor_under(&red, elsewhere, "")));
}

TEST(LuxWalks, AreSpotGradeUnlessTheFactorIsOfThisFixtureAndSayLevelsOutside) {
  TestRecord t = small_test();
  t.meters.push_back({3, "lux", "LX", "2026-01-02"});
  t.test.sensor_id = 3;
  ASSERT_TRUE(lux_factor_missing(t)) << "nothing makes PPFD of its lux";
  t.lux_factors = {factor_under(nullptr, here, "")};
  t.test.lux_factor_id = 1;
  EXPECT_FALSE(lux_factor_missing(t));
  EXPECT_DOUBLE_EQ(correction_of(t).calibration_factor, 0.017);
  EXPECT_DOUBLE_EQ(live_correction(t).calibration_factor, 1) << "what is live is PPFD";
  const auto faults = faults_of(t);
  ASSERT_EQ(faults.size(), 1u) << "a sweep of lux without what makes PPFD of it";
  EXPECT_EQ(faults[0].column, "lux_k");
  Sweep& s = t.sweeps[0];
  for (Reading& r : t.readings) r.raw *= 60;
  t.readings[3].raw = 52000;
  s.calibration_factor = s.lux_k.emplace(0.017);
  s.lux_k_expanded = 0.0004, s.lux_lowest = 2000, s.lux_highest = 32000, s.lux_fitted_here = true;
  const auto here = evaluate(t);
  EXPECT_NEAR(here->view(1)->ppfd[0], 500 * 60 * 0.017, 1e-9);
  const auto& findings = here->findings(1);
  const auto outside = std::ranges::find(findings, "outside of the lux factor", &Finding::id);
  ASSERT_NE(outside, findings.end());
  EXPECT_EQ(outside->stations, std::vector{3});
  const auto calibration = std::ranges::find(here->budget(1)->contributions, "calibration", &Contribution::id);
  EXPECT_NEAR(calibration->term.value, 0.0002 / 0.017, 1e-9);
  const auto by_lux = [&] {
    return evidence_facts(t, t.sweeps[0], *here->view(1), {}, {}, 0, UnitSystem::Metric).by_lux;
  };
  EXPECT_FALSE(by_lux()) << "graded as any other";
  t.sweeps[0].lux_fitted_here = false;
  EXPECT_TRUE(by_lux());
  EXPECT_EQ(evaluate(t)->evidence(1)->grade, Grade::Spot);
}

TEST(PairedSweeps, PairStationsByTheirPlaceWhereverTheyStandInTheirGrids) {
  TestRecord a = small_test(), b = small_test();
  for (Reading& r : b.readings) r.raw *= 0.97;
  b.sweeps[0].calibration_factor = 1.01;
  const auto pairs = paired_stations(a, a.sweeps[0], b, b.sweeps[0]);
  ASSERT_TRUE(pairs);
  ASSERT_EQ(pairs.value().size(), 16u);
  for (const SensorPair& p : pairs.value()) EXPECT_NEAR(p.second / p.first, 0.97 * 1.01, 1e-12);
  EXPECT_EQ(pairs.value()[0].place, (Place{0.15, 0.15}));
  b.rungs[0].height_m = 0.6;
  EXPECT_FALSE(paired_stations(a, a.sweeps[0], b, b.sweeps[0])) << "another height is no matter of sensors";
  b.rungs[0].height_m = 0.5;
  b.sweeps[0].columns = 3;
  const auto few = paired_stations(a, a.sweeps[0], b, b.sweeps[0]);
  EXPECT_FALSE(few) << "cells of 3 and of 4 columns have no center in common";
}

/// A test of the same light by a sensor that reads it off by a share, as it reads the lamp.
std::shared_ptr<const Evaluation> by_sensor(const char* name, double off, const char* lamp) {
  TestRecord t = small_test();
  t.meters = {{1, "quantum", name, "2026-01-02"}};
  t.meters[0].uncertainty_pct = 3;
  for (Reading& r : t.readings) r.raw *= 1 + off;
  for (int day = 30; day < 50; ++day) {
    CheckLampReading row;
    row.id = day, row.meter_id = 1, row.lamp = lamp;
    row.taken_at = utc_text(first_day_s + day * a_day_s);
    const double level = (1 + off) * (1 + 0.001 * (day % 3 - 1));
    row.light = text_of_numbers({420 * level, 380 * level, 400 * level});
    t.check_readings.push_back(row);
  }
  return evaluate(t);
}

TEST(LinedUpByACheckLamp, TestsOfOneLightAreOneWhateverTheirSensors) {
  EntryQuestion q;
  const auto mean = static_cast<std::size_t>(lineup_figure_index("mean_ppfd"));
  const auto entry = [&](const std::shared_ptr<const Evaluation>& e) {
    return entry_of(*e, q, "us", UnitSystem::Metric, {});
  };
  const auto a = by_sensor("QS-A", 0.02, "lamp A"), b = by_sensor("QS-B", -0.04, "lamp A");
  EXPECT_NEAR(entry(a).figures[mean].value / entry(b).figures[mean].value, 1.02 / 0.96, 1e-9) << "as measured";
  q.way = parse_way("check-lamp:lamp A=400").value();
  const LineUpEntry at_a = entry(a), at_b = entry(b);
  ASSERT_FALSE(at_a.none || at_b.none);
  EXPECT_NEAR(at_a.figures[mean].value, 515, 0.6);
  EXPECT_NEAR(at_a.figures[mean].value, at_b.figures[mean].value, 0.6);
  EXPECT_EQ(at_a.facts.sensor, at_b.facts.sensor);
  // The 3 % of each calibration no longer counts; what is left is the lamp's 0.2 % and what the bench adds.
  q.way = {};
  const LineUpEntry as_measured = entry(a);
  const auto spread = [&](const LineUpEntry& e) {
    return standing_of(e.figures[mean]).expanded() / e.figures[mean].value;
  };
  EXPECT_LT(spread(at_a), 0.8 * spread(as_measured));
  for (const auto& [source, standard] : at_a.figures[mean].shared)
    EXPECT_FALSE(at_a.sources[static_cast<std::size_t>(source)].starts_with("calibration")) << "not its sensor's";
  q.way = parse_way("check-lamp:lamp B=400").value();
  EXPECT_TRUE(entry(a).none) << "its sensor never read that lamp";
}

TEST(LinedUpByACheckLamp, ItsWayIsOfferedAtWhatTheFirstSensorMadeOfIt) {
  TestRecord t = small_test();
  read_lamp(t, 8, 99, 0, true);
  const auto ways = lamp_ways(lamp_board(t.check_readings, t.meters).value());
  EXPECT_EQ(ways, std::vector<std::string>{"check-lamp:lamp A=267"}) << "(300 + 250 + 251) / 3, once for both sensors";
  const auto called = [&](const char* name) {
    for (CheckLampReading& row : t.check_readings) row.lamp = name;
    return lamp_ways(lamp_board(t.check_readings, t.meters).value());
  };
  EXPECT_EQ(called("lamp A + hood"), std::vector<std::string>{"check-lamp:lamp A + hood=267"});
  EXPECT_TRUE(called("lamp A=4 + height:30cm").empty()) << "its name would part the way";
}

TEST(LinedUpByACheckLamp, ACorrectionThatTheLampGaveIsNotTakenTwice) {
  EntryQuestion q;
  q.way = parse_way("check-lamp:lamp A=400").value();
  const auto mean = static_cast<std::size_t>(lineup_figure_index("mean_ppfd"));
  const auto plain = by_sensor("QS-A", -0.02, "lamp A");
  TestRecord t = plain->record();
  for (int i = 0; i < 16; ++i) {
    t.readings.push_back({i + 1, 1, i, 0.98 * (500 + 10.0 * (i % 4)), "typed", ""});
  }
  t.placements = small_test().placements;
  t.sweeps[0].moved_factor = 1 / 0.98;
  const auto corrected = evaluate(t);
  EXPECT_NEAR(entry_of(*corrected, q, "us", UnitSystem::Metric, {}).figures[mean].value,
              entry_of(*plain, q, "us", UnitSystem::Metric, {}).figures[mean].value, 1e-9);
}

}  // namespace
}  // namespace sunbreak::evaluation
