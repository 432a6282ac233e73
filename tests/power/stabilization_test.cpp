#include "core/power/stabilization.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/power/running_cost.h"
#include "core/checks/wall_checks.h"

using namespace sunbreak;

namespace {

/// 600 · (1 + fall · e^(−t/τ)) every `every_s` for `minutes`, with seeded noise.
std::vector<TimedValue> decay(double fall, double tau_min, double minutes, double noise = 0, double every_s = 10,
                              double step_at_min = INFINITY, double step = 0) {
  std::mt19937_64 random(11);
  std::normal_distribution<double> normal;
  std::vector<TimedValue> log;
  for (double t = 0; t <= minutes * 60 + 1e-6; t += every_s)
    log.push_back({t, 600 * (1 + fall * std::exp(-t / (60 * tau_min))) * (t / 60 >= step_at_min ? 1 + step : 1) *
                          (1 + noise * normal(random))});
  return log;
}

StabilizationState state(const std::vector<TimedValue>& log) { return stabilized(log).state; }

}  // namespace

TEST(Blocks, AreMeansCountedBackFromTheEnd) {
  const std::vector<TimedValue> log{{0, 1}, {50, 3}, {70, 5}, {130, 7}, {160, 9}};
  const auto blocks = blocks_of(log, 60);
  ASSERT_EQ(blocks.size(), 3u);  // 160–100: 7, 9; 100–40: 3, 5; before: 1
  EXPECT_DOUBLE_EQ(blocks[2].mean, 8);
  EXPECT_DOUBLE_EQ(blocks[1].mean, 4);
  EXPECT_DOUBLE_EQ(blocks[0].mean, 1);
  EXPECT_DOUBLE_EQ(blocks[2].time_s, 145);
  EXPECT_TRUE(blocks_of({}, 60).empty());
}

TEST(Decay, IsFoundInACleanLog) {
  const auto fit = fit_decay(decay(0.06, 20, 60, 0.0005));
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->time_constant_s / 60, 20, 1);
  EXPECT_NEAR(fit->end_value, 600, 1);
  EXPECT_NEAR(fit->fall_share, 0.06, 0.003);
  EXPECT_NEAR(fit->remaining_share, 0.06 * std::exp(-3), 5e-4);
  EXPECT_GT(fit->remaining_sd, 0);
}

TEST(Decay, SurvivesAStepInTheMiddle) {
  const auto fit = fit_decay(decay(0.06, 20, 90, 0.002, 10, 45, -0.02));
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->remaining_share, 0.06 * std::exp(-4.5), 0.002);
  EXPECT_NEAR(fit->undisturbed_s / 60, 45, 3);
}

TEST(Decay, TooShortALogHasNone) {
  EXPECT_FALSE(fit_decay(decay(0.06, 20, 10)).has_value());
  EXPECT_FALSE(fit_decay({}).has_value());
}

TEST(Stabilized, ASteadyLogIs) {
  const StabilizationVerdict v = stabilized(decay(0, 20, 60, 0.004));
  EXPECT_EQ(v.state, StabilizationState::Stabilized) << v.words;
  EXPECT_NE(v.words.find("Settled"), std::string::npos);
}

TEST(Stabilized, AFallingOneIsNotUntilLittleIsToCome) {
  EXPECT_EQ(state(decay(0.06, 20, 40, 0.001)), StabilizationState::Moving);
  EXPECT_EQ(state(decay(0.06, 20, 100, 0.001)), StabilizationState::Stabilized);
}

TEST(Stabilized, ThePlainRuleAloneWouldPassASlowLampTooSoon) {
  // τ = 240 min, 3.8 % at first: at 120 min the last 30 min fell by 0.3 %, yet over 2 % is to come.
  const auto log = decay(0.038, 240, 120, 0.0005);
  const double now = log.back().value, half_an_hour_ago = log[log.size() - 181].value;
  ASSERT_LT((half_an_hour_ago - now) / now, 0.005);
  EXPECT_EQ(state(log), StabilizationState::Moving) << stabilized(log).words;
}

TEST(Stabilized, RisingCountsLikeFalling) {
  EXPECT_EQ(state(decay(-0.03, 15, 40, 0.001)), StabilizationState::Moving);
  EXPECT_NE(stabilized(decay(-0.03, 15, 40, 0.001)).words.find("rising"), std::string::npos);
}

TEST(Stabilized, UnderHalfAnHourNothingIsSaid) {
  EXPECT_EQ(state(decay(0, 20, 29, 0.001)), StabilizationState::TooShort);
  EXPECT_EQ(stabilized(std::vector<TimedValue>{}).state, StabilizationState::TooShort);
}

TEST(Stabilized, ThreeReadingsAQuarterOfAnHourApartGoByTheRuleAlone) {
  const std::vector<TimedValue> still{{0, 600}, {900, 601}, {1800, 600.5}}, falling{{0, 610}, {900, 604}, {1800, 600}};
  const StabilizationVerdict v = stabilized(still);
  EXPECT_EQ(v.state, StabilizationState::Stabilized);
  EXPECT_NE(v.words.find("rule alone"), std::string::npos);
  EXPECT_EQ(stabilized(falling).state, StabilizationState::Moving);
  EXPECT_NEAR(v.change_in_window, 1 / 600.5, 1e-4);
}

TEST(Stabilized, ReadingNoiseDecidesNothing) {
  int passed = 0;
  for (unsigned seed = 0; seed < 20; ++seed) {
    std::mt19937_64 random(seed);
    std::normal_distribution<double> normal;
    std::vector<TimedValue> log;
    for (double t = 0; t <= 3600; t += 10) log.push_back({t, 600 * (1 + 0.01 * normal(random))});
    passed += stabilized(log).state == StabilizationState::Stabilized;
  }
  EXPECT_GE(passed, 18) << "readings that scatter by 1 % about a steady value";
}

TEST(Stabilized, AStepBeginsTheWaitAnew) {
  EXPECT_EQ(state(decay(0, 20, 100, 0.001, 10, 90, 0.02)), StabilizationState::Moving);
  EXPECT_EQ(state(decay(0, 20, 130, 0.001, 10, 90, 0.02)), StabilizationState::Stabilized);
}

TEST(Stabilized, PredictsWhenOnceHalfTheFallIsPast) {
  const auto log = decay(0.06, 20, 40, 0.0005);
  const StabilizationVerdict v = stabilized(log);
  ASSERT_TRUE(v.stabilizes_in_s) << v.words;
  // The fall in 30 min is the later of the two to come under 0.5 %: 0.06 · e^(−t/20) · (e^1.5 − 1) = 0.005.
  const double expected_min = 20 * std::log(0.06 * std::expm1(1.5) / 0.005);
  EXPECT_NEAR((log.back().time_s + *v.stabilizes_in_s) / 60, expected_min, 0.2 * expected_min);
  EXPECT_FALSE(stabilized(decay(0.06, 80, 35, 0.004)).stabilizes_in_s.has_value())
      << "no prediction the data do not support";
}

TEST(Stabilized, ShiftUnitAndResamplingChangeNoVerdict) {
  for (const double minutes : {35.0, 50.0, 70.0, 110.0}) {
    const auto log = decay(0.05, 18, minutes, 0.001);
    auto shifted = log, scaled = log;
    for (TimedValue& v : shifted) v.time_s += 1.7e9;
    for (TimedValue& v : scaled) v.value *= 0.0185;
    EXPECT_EQ(state(shifted), state(log)) << minutes;
    EXPECT_EQ(state(scaled), state(log)) << minutes;
    EXPECT_EQ(state(decay(0.05, 18, minutes, 0.001, 5)), state(log)) << minutes;
    EXPECT_EQ(state(decay(0.05, 18, minutes, 0.001, 20)), state(log)) << minutes;
  }
}

TEST(Stabilized, OfLightAndWattsTheLaterOneSpeaks) {
  const StabilizationVerdict v = later_of(stabilized(decay(0, 20, 60, 0.001)), stabilized(decay(0.06, 20, 60, 0.001)));
  EXPECT_EQ(v.state, StabilizationState::Moving);
  EXPECT_TRUE(v.words.starts_with("Watts:"));
}

TEST(WallChecks, WhatCannotBeIsNamed) {
  EXPECT_TRUE(wall_checks({230, 1.44, 321, 331, 0.97, 50}).empty());
  EXPECT_EQ(wall_checks({{}, {}, {}, {}, 1.2, {}}).front().id, "power factor over 1");
  EXPECT_EQ(wall_checks({230, 1.0, 240, {}, {}, {}}).front().id, "watts over volts times amperes");
  EXPECT_EQ(wall_checks({{}, {}, 300, 331, 0.97, {}}).front().id, "power factor unlike watts over volt-amperes");
  EXPECT_TRUE(wall_checks({}).empty());
}

TEST(RunningCost, ByHand) {
  // 320 W for 12 h: 3.84 kWh a day; at 0.30 a kWh 1.152 a day, 35.0208 a month of 30.4 days.
  const RunningCost c = running_cost(320, 12, 0.30);
  EXPECT_DOUBLE_EQ(c.kwh_day, 3.84);
  EXPECT_DOUBLE_EQ(c.money_day, 1.152);
  EXPECT_NEAR(c.money_month, 35.0208, 1e-9);
  EXPECT_DOUBLE_EQ(c.kwh_year, 3.84 * 365);
  EXPECT_NEAR(heat_btu_h(320), 1091.84, 1e-9);
  EXPECT_NEAR(mains_current_a(320, 230, 0.97), 1.4343, 1e-4);
}

TEST(Stabilized, ALogThatSwingsIsNot) {
  for (const double every_s : {1.0, 10.0, 60.0}) {
    std::vector<TimedValue> log;
    for (int i = 0; i * every_s <= 3600; ++i) log.push_back({i * every_s, i % 2 ? 1000.0 : 0.0});
    const auto v = stabilized(log);
    EXPECT_EQ(v.state, StabilizationState::Moving) << every_s << ": " << v.words;
    EXPECT_NE(v.words.find("swing between 0 and 1000"), std::string::npos) << v.words;
    EXPECT_FALSE(v.stabilizes_in_s);
  }
  // One dropout of a sensor in half an hour is a bad sample, no swing.
  auto log = decay(0, 20, 60, 0.002, 1);
  log[2000].value = 0;
  EXPECT_EQ(state(log), StabilizationState::Stabilized) << stabilized(log).words;
}

TEST(Stabilized, ALogOfNothingHasNothingToJudge) {
  for (const double value : {0.0, -0.4}) {
    std::vector<TimedValue> log;
    for (int t = 0; t <= 3600; t += 10) log.push_back({double(t), value});
    const auto v = stabilized(log);
    EXPECT_EQ(v.state, StabilizationState::Dark);
    EXPECT_EQ(v.words.find("nan"), std::string::npos) << v.words;
    EXPECT_FALSE(v.fit);
  }
  std::vector<TimedValue> zeros(20);
  for (int i = 0; i < 20; ++i) zeros[i].time_s = 300.0 * i;
  EXPECT_EQ(stabilized(zeros).words, "Nothing to judge: the last readings are all zero.");
  const auto lit = stabilized(decay(0, 20, 100, 0.001));
  EXPECT_TRUE(later_of(lit, stabilized(zeros)).words.starts_with("Watts: Nothing to judge"));
}
