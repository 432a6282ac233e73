#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/meters/agreement.h"
#include "core/meters/check_lamp.h"
#include "core/meters/lux_factor.h"
#include "core/quantity/student.h"
#include "meters/meter_trial.h"
#include "spectrum/made_spectra.h"

namespace sunbreak {
namespace {

TEST(StudentTest, QuantilesAreThoseOfTables) {
  EXPECT_NEAR(student_quantile(0.975, 4), 2.7764, 1e-4);
  EXPECT_NEAR(student_quantile(0.975, 1), 12.7062, 1e-3);
  EXPECT_NEAR(student_quantile(0.995, 30), 2.7500, 1e-4);
  EXPECT_NEAR(coverage_factor(5), 2.649, 2e-3);  // JCGM 100, table G.2
  EXPECT_NEAR(coverage_factor(1e6), 2, 1e-3);
  EXPECT_NEAR(chi_squared_quantile(1.959964, 10), 20.483, 0.02);
}

TEST(LuxFactorTest, PairsOnALineGiveItsSlope) {
  const auto told = lux_factor({{1000, 20}, {2000, 40}, {4000, 80}, {8000, 160}, {16000, 320}});
  ASSERT_TRUE(told);
  EXPECT_NEAR(told.value().k, 0.02, 1e-12);
  EXPECT_NEAR(told.value().inverse(), 50, 1e-9);
  EXPECT_NEAR(told.value().r_squared, 1, 1e-12);
  EXPECT_TRUE(told.value().holds());
  EXPECT_EQ(told.value().lowest_lux, 1000);
  EXPECT_EQ(told.value().highest_lux, 16000);
}

TEST(LuxFactorTest, MeanOfRatiosWhereScatterGrowsWithTheLight) {
  const auto told = lux_factor({{1000, 20.2}, {2000, 39.6}, {4000, 80.8}});
  ASSERT_TRUE(told);
  EXPECT_NEAR(told.value().k, (0.0202 + 0.0198 + 0.0202) / 3, 2e-5);
  EXPECT_FALSE(told.value().holds());
  EXPECT_NE(told.value().reasons[0].find("too few"), std::string::npos);
}

TEST(LuxFactorTest, InterceptCurveAndScatterKeepItFromHolding) {
  std::vector<LuxPair> lifted, bent, narrow;
  for (int i = 1; i <= 12; ++i) {
    const double lux = 1000.0 * i, noise = 1 + 0.002 * (i % 3 - 1);
    lifted.push_back({lux, (15 + 0.02 * lux) * noise});
    bent.push_back({lux, 0.02 * lux * (1 + 0.1 * i / 12) * noise});
    narrow.push_back({10000.0 + i, 0.02 * lux * noise});
  }
  EXPECT_TRUE(lux_factor(lifted).value().intercept_differs);
  EXPECT_NEAR(lux_factor(lifted).value().intercept, 15, 0.5);
  EXPECT_FALSE(lux_factor(lifted).value().holds());
  EXPECT_TRUE(lux_factor(bent).value().curve_needed);
  EXPECT_FALSE(lux_factor(bent).value().holds());
  EXPECT_FALSE(lux_factor(narrow).value().holds());
}

TEST(LuxFactorTest, ImpossiblePairsAreRefused) {
  EXPECT_FALSE(lux_factor({{1000, 20}, {2000, 40}}));
  EXPECT_FALSE(lux_factor({{1000, 20}, {2000, 40}, {0, 10}}));
  EXPECT_FALSE(lux_factor({{1000, 20}, {2000, 40}, {3000, std::nan("")}}));
  EXPECT_FALSE(lux_factor({{1000, 20}, {2000, 40}, {3000, -60}}));
}

TEST(LuxFactorTest, IsRefusedForAnotherSpectrumAndOutsideOfItsLevels) {
  std::mt19937_64 chance(3);
  const SpectralCurve white(test::sampled(test::white_led(chance), test::every(1)));
  const SpectralCurve sodium(test::sampled(test::sodium(chance), test::every(1)));
  EXPECT_TRUE(lux_factor_refused(spectrum_match(white, sodium), true, 2000, 1000, 5000));
  EXPECT_FALSE(lux_factor_refused(spectrum_match(white, white), false, 2000, 1000, 5000));
  EXPECT_TRUE(lux_factor_refused(spectrum_match(white, white), false, 6000, 1000, 5000));
  EXPECT_TRUE(lux_factor_refused(std::nullopt, false, 2000, 1000, 5000));
  EXPECT_FALSE(lux_factor_refused(std::nullopt, true, 2000, 1000, 5000));
}

std::vector<SensorPair> pairs_of(const std::vector<std::pair<double, double>>& values) {
  std::vector<SensorPair> pairs;
  for (const auto& [a, b] : values) pairs.push_back({a, b, {}});
  return pairs;
}

TEST(AgreementTest, HandWorkedDifferences) {
  // Second over first: 0.97, 0.97, 0.97, 0.98, 0.96.
  const auto told = agreement(pairs_of({{100, 97}, {200, 194}, {300, 291}, {400, 392}, {500, 480}}), 0.01, 0.01);
  ASSERT_TRUE(told);
  const Agreement& a = told.value();
  EXPECT_NEAR(a.differences_pct[0], 200.0 * -3 / 197, 1e-9);
  EXPECT_NEAR(a.ratio.value, std::pow(0.97 * 0.97 * 0.97 * 0.98 * 0.96, 0.2), 1e-9);
  const double mean = (3 * 200.0 * -3 / 197 + 200.0 * -8 / 792 + 200.0 * -20 / 980) / 5;
  EXPECT_NEAR(a.mean_difference_pct.value, mean, 1e-9);
  EXPECT_NEAR(a.high_limit_pct.value - a.low_limit_pct.value, 2 * 1.959964 * a.scatter_pct, 1e-9);
  EXPECT_LT(a.low_limit_pct.low, a.low_limit_pct.value);
}

TEST(AgreementTest, VerdictsFollowWhatIsThere) {
  std::vector<SensorPair> factor, angle, bent;
  for (int i = 0; i < 49; ++i) {
    const double x = i % 7 - 3, y = i / 7 - 3, out = (x * x + y * y) / 18, light = 800 * (1 - 0.5 * out);
    const double noise = 1 + 0.003 * ((i * 7) % 5 - 2);
    factor.push_back({light, 0.9 * light * noise, Place{x, y}});
    angle.push_back({light, light * (1 - 0.05 * out) * noise, Place{x, y}});
    const double wide = 800 * (1 - 0.85 * out);
    bent.push_back({wide, (8 + wide) * noise, {}});
  }
  EXPECT_EQ(agreement(factor, 0.02, 0.02).value().verdict, AgreementVerdict::Factor);
  EXPECT_EQ(agreement(factor, 0.06, 0.06).value().verdict, AgreementVerdict::Agree);
  EXPECT_EQ(agreement(angle, 0.02, 0.02).value().verdict, AgreementVerdict::Angle);
  EXPECT_NEAR(agreement(angle, 0.02, 0.02).value().edge_pct->value, -5, 0.6);
  const Agreement level = agreement(bent, 0.02, 0.02).value();
  EXPECT_EQ(level.verdict, AgreementVerdict::Level);
  EXPECT_NEAR(level.constant.value, 8, 2);
  const CarriedCalibration carried = carried_calibration(agreement(factor, 0.02, 0.02).value(), 1.05, 0.02);
  EXPECT_NEAR(carried.factor, 1.05 / 0.9, 2e-3);
  EXPECT_GT(carried.standard_uncertainty, 0.02);
  EXPECT_FALSE(agreement(pairs_of({{1, 1}, {2, 2}}), 0.02, 0.02));
}

TEST(AgreementTest, WhatReadsTheSameIsNotSaidToReadMore) {
  const auto words = [](double factor) {
    return agreement(pairs_of({{100, 100 * factor},
                               {200, 200 * factor},
                               {300, 300 * factor},
                               {400, 400 * factor},
                               {500, 500 * factor}}),
                     0.01, 0.01)
        .value()
        .words;
  };
  EXPECT_TRUE(words(1).starts_with("The second reads within 0.1 % of the first: ")) << words(1);
  EXPECT_TRUE(words(0.9996).starts_with("The second reads within 0.1 % of the first: ")) << words(0.9996);
  EXPECT_TRUE(words(1.001).starts_with("The second reads surely more than the first by 0.1 %")) << words(1.001);
}

std::vector<CheckReading> history(int days, int moves_at, double by_lamp_a, double by_lamp_b, int seed = 1) {
  std::mt19937_64 chance(static_cast<std::uint64_t>(seed));
  std::vector<CheckReading> all;
  for (int day = 0; day < days; ++day)
    for (const auto& [lamp, by] : {std::pair{"A", by_lamp_a}, std::pair{"B", by_lamp_b}}) {
      const double noise = 1 + 0.004 * (static_cast<double>(chance() >> 11) * 0x1p-53 - 0.5);
      const double level = 500 * noise * (day >= moves_at ? 1 + by : 1);
      all.push_back({static_cast<double>(day), lamp, "S", {level, level * 0.8, level * 0.7}, 100});
    }
  return all;
}

TEST(CheckLampTest, TellsSensorFromLampByASecondLamp) {
  const auto sensor = history(60, 40, -0.018, -0.018);
  const auto charts = lamp_charts(sensor).value();
  ASSERT_EQ(charts.size(), 2u);
  ASSERT_TRUE(charts[0].move);
  EXPECT_EQ(charts[0].move->since, 40u);
  EXPECT_NEAR(charts[0].move->change, -0.018, 0.001);
  const auto findings = lamp_findings(sensor, charts);
  ASSERT_EQ(findings.size(), 1u);
  EXPECT_EQ(findings[0].mover, Mover::Sensor);
  EXPECT_NEAR(drift_correction(findings[0]).factor, 1 / 0.982, 0.001);

  const auto lamp = history(60, 40, -0.03, 0);
  const auto of_lamp = lamp_findings(lamp, lamp_charts(lamp).value());
  ASSERT_EQ(of_lamp.size(), 1u);
  EXPECT_EQ(of_lamp[0].mover, Mover::Lamp);
  EXPECT_EQ(of_lamp[0].who, "A");
}

TEST(CheckLampTest, OneLampAloneTellsThatItDoesNotTell) {
  std::vector<CheckReading> alone;
  for (const CheckReading& r : history(60, 40, -0.02, 0))
    if (r.lamp == "A") alone.push_back(r);
  const auto findings = lamp_findings(alone, lamp_charts(alone).value());
  ASSERT_EQ(findings.size(), 1u);
  EXPECT_EQ(findings[0].mover, Mover::NotTold);
  EXPECT_NE(findings[0].words.find("second lamp"), std::string::npos);
}

TEST(CheckLampTest, QuietHistoryAndAFewReadingsSayNothing) {
  const auto quiet = history(80, 1000, 0, 0);
  EXPECT_TRUE(lamp_findings(quiet, lamp_charts(quiet).value()).empty());
  const auto few = history(4, 2, -0.3, -0.3);
  EXPECT_TRUE(lamp_findings(few, lamp_charts(few).value()).empty());
}

TEST(CheckLampTest, LampOutOfPlaceAndOtherWattsAreSeen) {
  auto readings = history(40, 1000, 0, 0);
  readings[60].light = {550, 380, 330};
  readings[70].watts = 103;
  const auto charts = lamp_charts(readings).value();
  EXPECT_EQ(charts[0].odd_shape, (std::vector<std::size_t>{30}));
  EXPECT_EQ(charts[0].odd_watts, (std::vector<std::size_t>{35}));
  readings[3].light = {1, 2};
  EXPECT_FALSE(lamp_charts(readings));
}

TEST(CheckLampTest, LongHistoriesAndVeryManyPairsEndSoon) {
  const auto long_history = history(100'000, 60'000, -0.02, -0.02);
  const auto charts = lamp_charts(long_history).value();
  ASSERT_TRUE(charts[0].move);
  EXPECT_NEAR(charts[0].move->change, -0.02, 1e-4);
  std::vector<SensorPair> pairs;
  for (int i = 0; i < 100'000; ++i)
    pairs.push_back({100.0 + i % 700, 0.97 * (100 + i % 700) * (1 + 0.001 * (i % 5 - 2)), {}});
  EXPECT_NEAR(agreement(pairs, 0.02, 0.02).value().proportion.value, 0.97, 1e-3);
  std::vector<CheckReading> strangers;
  for (int i = 0; i < 1000; ++i) strangers.push_back({1.0 * i, "lamp " + std::to_string(i), "S", {500}, {}});
  EXPECT_FALSE(lamp_charts(strangers));
}

/// The study on seeds of its own, in the numbers that it promises.
TEST(MeterTrialTest, IntervalsHoldTheTruth) {
  const test::LuxTrial lux = test::lux_trial(600, 77);
  for (const test::Share& share : {lux.k, lux.slope, lux.intercept, lux.bend}) {
    EXPECT_GE(share.value(), 0.92);
    EXPECT_LE(share.value(), 0.99);
  }
  EXPECT_EQ(lux.wrong_spectrum_refused.held, lux.wrong_spectrum_refused.of);
  EXPECT_GT(lux.wrong_spectrum_refused.of, 300);
  const test::AgreementTrial pairs = test::agreement_trial(450, 77);
  for (const test::Share& share :
       {pairs.mean, pairs.ratio, pairs.low_limit, pairs.high_limit, pairs.proportion, pairs.constant}) {
    EXPECT_GE(share.value(), 0.92);
    EXPECT_LE(share.value(), 0.99);
  }
  EXPECT_GE(pairs.angle_named.value(), 0.9);
  const test::ChartTrial charts = test::chart_trial(60, 77);
  EXPECT_GE(charts.quiet_days, 200 * charts.false_alarms);
  EXPECT_GE(charts.step_found.value(), 0.9);
  EXPECT_GE(charts.ramp_found.value(), 0.9);
  EXPECT_GE(charts.told_apart.value(), 0.9);
}

}  // namespace
}  // namespace sunbreak
