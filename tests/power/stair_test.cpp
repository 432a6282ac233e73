#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

#include "core/power/dimming_curve.h"
#include "core/power/monotone_cubic.h"
#include "core/power/running_cost.h"
#include "core/power/thinned.h"

namespace sunbreak {
namespace {

StairStep step(double dial, double watts, std::vector<double> light, double time_s = 0) {
  StairStep s{dial, time_s, watts, 0.97, {}};
  for (std::size_t i = 0; i < light.size(); ++i) s.light.push_back({static_cast<int>(i), light[i], {}});
  return s;
}

TEST(DimmingCurve, WorkedByHand) {
  const auto found = dimming_curve(std::vector{step(100, 320, {800, 400}), step(50, 168, {440, 220}),
                                               step(20, 80, {176, 88}), step(5, 30, {0, 0}), step(0, 0.6, {})});
  ASSERT_TRUE(found.ok());
  const DimmingCurve& s = found.value();
  ASSERT_EQ(s.rows.size(), 4u);
  EXPECT_DOUBLE_EQ(*s.rows[1].light_factor, 0.55);
  EXPECT_DOUBLE_EQ(*s.rows[1].power_share, 168 / 320.0);
  EXPECT_NEAR(*s.rows[1].relative_efficacy, 0.55 / 0.525, 1e-12);
  EXPECT_NEAR(*s.rows[1].off_linear, 0.05, 1e-12);
  EXPECT_NEAR(*s.rows[2].off_linear, 0.02, 1e-12);
  EXPECT_EQ(s.rows[1].stations, 2);
  EXPECT_EQ(s.lowest_pct, 20);
  EXPECT_EQ(s.standby_w, 0.6);
  EXPECT_FALSE(s.pattern_changes);
  EXPECT_FALSE(s.full_is_guessed);
}

TEST(DimmingCurve, BoostIsAStopAboveFull) {
  const auto s = dimming_curve(std::vector{step(110, 352, {864}), step(100, 320, {800})}).value();
  EXPECT_DOUBLE_EQ(*s.rows[0].light_factor, 1.08);
  EXPECT_DOUBLE_EQ(*s.rows[0].power_share, 1.1);
  EXPECT_EQ(s.full_dial_pct, 100);
}

TEST(DimmingCurve, WithoutFullTheBrightestStopCountsAndThatIsSaid) {
  const auto s = dimming_curve(std::vector{step(80, 250, {600}), step(40, 130, {300})}).value();
  EXPECT_EQ(s.full_dial_pct, 80);
  EXPECT_DOUBLE_EQ(*s.rows[1].light_factor, 0.5);
  EXPECT_NEAR(*s.rows[1].off_linear, 0, 1e-12);
  ASSERT_TRUE(s.full_is_guessed);
  EXPECT_NE(s.full_is_guessed->find("80 %"), std::string::npos);
}

TEST(DimmingCurve, SaysWhereTheDimmerChangesThePattern) {
  const auto even = dimming_curve(std::vector{step(100, 320, {800, 400}), step(50, 168, {440, 214})}).value();
  EXPECT_FALSE(even.pattern_changes);  // 0.550 and 0.535: 2.8 %
  const auto uneven = dimming_curve(std::vector{step(100, 320, {800, 400}), step(50, 168, {440, 210})}).value();
  ASSERT_TRUE(uneven.pattern_changes);
  EXPECT_NE(uneven.pattern_changes->find("4.7 %"), std::string::npos) << *uneven.pattern_changes;
}

TEST(DimmingCurve, NoiseAloneIsNoPattern) {
  auto full = step(100, 320, {800, 400}), half = step(50, 168, {440, 210});
  for (auto* s : {&full, &half})
    for (auto& l : s->light) l.error_share = 0.015;
  EXPECT_FALSE(dimming_curve(std::vector{full, half}).value().pattern_changes);
}

TEST(DimmingCurve, DriftBetweenTwoReadingsOfFullIsTakenOut) {
  // Light falls by 4 % over the stair; half way it is 2 % down.
  const auto s =
      dimming_curve(std::vector{step(100, 320, {800}, 0), step(50, 168, {0.55 * 784}, 300), step(100, 316, {768}, 600)})
          .value();
  EXPECT_NEAR(*s.rows[1].light_factor, 0.55, 1e-12);
  EXPECT_NEAR(*s.drift, -0.04, 1e-12);
  EXPECT_NEAR(*s.rows[0].light_factor, 1, 1e-12);
}

TEST(DimmingCurve, RefusesWhatIsNoDialAndWhatIsEmpty) {
  EXPECT_FALSE(dimming_curve(std::vector{step(-5, 10, {1})}).ok());
  EXPECT_FALSE(dimming_curve(std::vector{step(250, 10, {1})}).ok());
  EXPECT_FALSE(dimming_curve(std::vector<StairStep>{}).ok());
  EXPECT_FALSE(dimming_curve(std::vector{StairStep{50, 0, {}, {}, {}}}).ok());
}

TEST(DimmingCurve, BetweenStopsItFollowsASmoothDimmer) {
  const auto light = [](double d) { return d / 100 * (1.06 - 0.06 * d / 100); };
  std::vector<StairStep> steps;
  for (const double d : {100.0, 80.0, 60.0, 40.0, 20.0, 10.0}) steps.push_back(step(d, 10 + 3.1 * d, {700 * light(d)}));
  const auto s = dimming_curve(steps).value();
  for (double d = 10; d <= 100; d += 3) {
    EXPECT_NEAR(*s.light_factor_at(d), light(d), 0.002) << d;
    EXPECT_NEAR(*s.power_at(d), 10 + 3.1 * d, 1e-9) << d;
  }
  EXPECT_FALSE(s.light_factor_at(5));
  EXPECT_FALSE(s.light_factor_at(105));
}

RC_GTEST_PROP(DimmerStairProperty, LightUnitAndOrderDoNotMatter, (std::vector<unsigned char> picks)) {
  RC_PRE(picks.size() >= 2);
  std::vector<StairStep> steps{step(100, 300, {500, 700})};
  for (std::size_t i = 0; i < picks.size(); ++i)
    steps.push_back(step(5 + picks[i] % 90, 20 + picks[i], {1.0 + picks[i], 2.0 + picks[i]}));
  auto other = steps;
  std::reverse(other.begin(), other.end());
  for (auto& s : other)
    for (auto& l : s.light) l.ppfd *= 7.3;
  const auto a = dimming_curve(steps).value(), b = dimming_curve(other).value();
  RC_ASSERT(a.rows.size() == b.rows.size());
  for (std::size_t i = 0; i < a.rows.size(); ++i) {
    RC_ASSERT(std::abs(*a.rows[i].light_factor - *b.rows[i].light_factor) < 1e-9);
    RC_ASSERT(std::abs(*a.rows[i].power_w - *b.rows[i].power_w) < 1e-9);
  }
}

RC_GTEST_PROP(MonotoneCubicProperty, NeverLeavesTheRangeOfItsNeighbors, (std::vector<short> heights)) {
  RC_PRE(heights.size() >= 2);
  std::vector<double> x, y;
  for (std::size_t i = 0; i < heights.size(); ++i) x.push_back(static_cast<double>(i * i + i)), y.push_back(heights[i]);
  const auto c = MonotoneCubic::through(x, y).value();
  for (std::size_t i = 0; i + 1 < x.size(); ++i)
    for (int k = 0; k <= 10; ++k) {
      const double at = c.at(x[i] + (x[i + 1] - x[i]) * k / 10);
      RC_ASSERT(at >= std::min(y[i], y[i + 1]) - 1e-6);
      RC_ASSERT(at <= std::max(y[i], y[i + 1]) + 1e-6);
    }
}

TEST(MonotoneCubic, KeepsALineAndRefusesPointsOutOfOrder) {
  const double x[] = {0, 1, 3, 7}, y[] = {1, 3, 7, 15};
  const auto c = MonotoneCubic::through(x, y).value();
  for (double at = 0; at <= 7; at += 0.25) EXPECT_NEAR(c.at(at), 1 + 2 * at, 1e-12);
  const double back[] = {0, 2, 1, 3};
  EXPECT_FALSE(MonotoneCubic::through(back, y).ok());
}

TEST(Thinned, ASingleSpikeStaysVisible) {
  std::vector<TimedValue> log;
  for (int t = 0; t < 86400; ++t) log.push_back({static_cast<double>(t), t == 43210 ? 900.0 : 300.0});
  const auto seen = thinned(log, 0, 86400, 800);
  ASSERT_EQ(seen.size(), 800u);
  double highest = 0;
  for (const ThinColumn& c : seen) highest = std::max(highest, c.high);
  EXPECT_EQ(highest, 900);
  EXPECT_EQ(seen[400].high, 900);
  EXPECT_EQ(seen[401].high, 300);
}

TEST(Thinned, LeavesOutWhatIsOutsideAndWhatIsMissing) {
  const std::vector<TimedValue> log{{0, 1}, {10, 2}, {20, NAN}, {30, 4}, {40, 5}};
  const auto seen = thinned(log, 5, 35, 3);
  ASSERT_EQ(seen.size(), 2u);
  EXPECT_EQ(seen[0].column, 0);
  EXPECT_EQ(seen[0].first, 2);
  EXPECT_EQ(seen[1].column, 2);
  EXPECT_EQ(seen[1].last, 4);
}

TEST(RunningCost, WorkedByHand) {
  const RunningCost c = running_cost(322, 12, 0.30);
  EXPECT_NEAR(c.kwh_day, 3.864, 1e-9);
  EXPECT_NEAR(c.kwh_week, 27.048, 1e-9);
  EXPECT_NEAR(c.kwh_month, 117.4656, 1e-9);
  EXPECT_NEAR(c.kwh_year, 1410.36, 1e-9);
  EXPECT_NEAR(c.money_year, 423.108, 1e-9);
  EXPECT_NEAR(heat_btu_h(322), 1098.664, 1e-9);
  EXPECT_NEAR(mains_current_a(322, 230, 0.97), 1.4433, 1e-4);
}

}  // namespace
}  // namespace sunbreak
