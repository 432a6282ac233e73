#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <random>

#include "core/power/stabilization.h"

namespace sunbreak {
namespace {

/// A log of a decay, perhaps with a step, one value every ten seconds.
std::vector<TimedValue> decaying(double fall, double tau_min, double minutes, double noise,
                                 double step_at_min = INFINITY, double step = 0) {
  std::mt19937_64 random(11);
  std::vector<TimedValue> log;
  for (double t = 0; t <= minutes * 60; t += 10) {
    const double u = static_cast<double>(random() >> 11) * 0x1p-53 - 0.5;
    const double value = 600 * (1 + fall * std::exp(-t / 60 / tau_min)) * (t / 60 >= step_at_min ? 1 + step : 1);
    log.push_back({t, value * (1 + noise * u)});
  }
  return log;
}

RC_GTEST_PROP(StabilizationProperty, ClockAndUnitChangeNothing, (unsigned char a, unsigned char b, unsigned char c)) {
  const auto log = decaying(0.01 + 0.08 * a / 255, 3 + 60.0 * b / 255, 20 + 100.0 * c / 255, 0.004);
  auto other = log;
  for (TimedValue& v : other) v.time_s += 1'773'478'800, v.value *= 0.0185;
  const StabilizationVerdict first = stabilized(log), second = stabilized(other);
  RC_ASSERT(first.state == second.state);
  RC_ASSERT(std::abs(first.change_in_window - second.change_in_window) < 1e-6);
  RC_ASSERT(first.stabilizes_in_s.has_value() == second.stabilizes_in_s.has_value());
}

RC_GTEST_PROP(StabilizationProperty, AFallIsNeverCalledSettledWhileTwoPercentAreToCome,
              (unsigned char a, unsigned char b)) {
  const double tau_min = 4 + 80.0 * a / 255, fall = 0.04 + 0.05 * b / 255;
  // Until two percent are left.
  const auto log = decaying(fall, tau_min, std::max(31.0, tau_min * std::log(fall / 0.02)), 0.003);
  const double left = fall * std::exp(-log.back().time_s / 60 / tau_min);
  if (left < 0.019) return;
  RC_ASSERT(stabilized(log).state != StabilizationState::Stabilized);
}

TEST(DecayFit, KnowsThatAShortLogSaysLittleOfASlowLamp) {
  const auto fit = fit_decay(decaying(0.05, 80, 20, 0.004));
  ASSERT_TRUE(fit);
  EXPECT_GT(fit->chance_of_much, 0.5);
  const auto later = fit_decay(decaying(0.05, 10, 90, 0.004));
  ASSERT_TRUE(later);
  EXPECT_LT(later->chance_of_much, 0.01);
}

TEST(DecayFit, IsAsSureAsItIsRightWhereALampTakesOverAnHour) {
  for (const double tau_min : {61.0, 75.0, 93.0, 120.0, 160.0})
    for (const double minutes : {120.0, 200.0}) {
      const auto fit = fit_decay(decaying(0.06, tau_min, minutes, 0));
      ASSERT_TRUE(fit);
      EXPECT_LE(std::abs(fit->remaining_share - 0.06 * std::exp(-minutes / tau_min)), 2 * fit->remaining_sd)
          << tau_min << " " << minutes;
    }
}

TEST(DecayFit, AStepIsFoundByItsMoment) {
  const auto fit = fit_decay(decaying(0.05, 8, 90, 0.002, 60, -0.015));
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->undisturbed_s, 30 * 60, 180);
  EXPECT_NEAR(fit->end_value, 600 * (1 - 0.015), 1.5);
}

TEST(DecayFit, ADayWithAStepIsJudgedAsAnHourIs) {
  const auto fit = fit_decay(decaying(0.05, 20, 24 * 60, 0.003, 700, 0.01));
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->remaining_share, 0, 1e-3);
  EXPECT_EQ(stabilized(decaying(0.05, 20, 24 * 60, 0.003, 700, 0.01)).state, StabilizationState::Stabilized);
}

}  // namespace
}  // namespace sunbreak
