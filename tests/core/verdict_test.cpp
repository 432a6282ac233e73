#include "core/claims/verdict.h"

#include <gtest/gtest.h>

#include <cmath>

#include "core/claims/claimed_map.h"
#include "core/claims/lift.h"

namespace sunbreak {
namespace {

using enum Verdict;

/// A figure's verdict, worked by hand: |measured − claimed| against ±, ± against a tenth of the claim.
struct FigureCase {
  const char* kind;
  double claimed, measured, expanded;
  Verdict verdict;
  double difference_pct;
  ClaimSense sense = ClaimSense::AtLeast;
};

constexpr double none = unread;

const FigureCase figure_cases[] = {
    // Power: 300 W.
    {"power_w", 300, 297, 6, Confirmed, -1},
    {"power_w", 300, 294, 6, Confirmed, -2},     // just within
    {"power_w", 300, 293.9, 6, Short, -2.0333},  // just beyond
    {"power_w", 300, 306, 6, Confirmed, 2},
    {"power_w", 300, 306.1, 6, Over, 2.0333},
    {"power_w", 300, 310, 30, NotToldApart, 3.3333},  // ± of a tenth does not tell
    {"power_w", 300, 310, 29.9, Confirmed, 3.3333},
    {"power_w", 300, 228, 5, Short, -24},
    {"power_w", 300, none, none, NotTestable, none},
    {"power_w", 0, 10, 1, NotTestable, none},
    {"power_w", 300, 297, none, NotTestable, -1},  // without a ± nothing is judged
    // Current: 1.4 A.
    {"current_a", 1.4, 1.41, 0.03, Confirmed, 0.7143},
    {"current_a", 1.4, 1.3, 0.03, Short, -7.1429},
    {"current_a", 1.4, 1.5, 0.03, Over, 7.1429},
    {"current_a", 1.4, 1.5, 0.14, NotToldApart, 7.1429},
    // PPF: 900 µmol/s.
    {"ppf_umol_s", 900, 893, 57, Confirmed, -0.7778},
    {"ppf_umol_s", 900, 843, 57, Confirmed, -6.3333},
    {"ppf_umol_s", 900, 842, 57, Short, -6.4444},
    {"ppf_umol_s", 900, 958, 57, Over, 6.4444},
    {"ppf_umol_s", 900, 950, 91, NotToldApart, 5.5556},
    // Beam: 120°.
    {"beam_angle_deg", 120, 117, 10, Confirmed, -2.5},
    {"beam_angle_deg", 120, 117, 12, NotToldApart, -2.5},
    {"beam_angle_deg", 120, 90, 10, Short, -25},
    {"beam_angle_deg", 60, 90, 10, Over, 50},
    // Even light: lowest ÷ mean of 0.6, and highest ÷ lowest of 2, of which less is better.
    {"evenness", 0.6, 0.62, 0.03, Confirmed, 3.3333},
    {"evenness", 0.6, 0.5, 0.03, Short, -16.6667},
    {"evenness", 0.6, 0.74, 0.02, Over, 23.3333},
    {"evenness", 0.6, 0.55, 0.06, NotToldApart, -8.3333},
    {"evenness", 2, 1.6, 0.1, Confirmed, -20, ClaimSense::AtMost},
    {"evenness", 2, 2.5, 0.1, Over, 25, ClaimSense::AtMost},
    {"evenness", 2, 2.05, 0.3, NotToldApart, 2.5, ClaimSense::AtMost},
    // A surface that is claimed to be at 60 °C at most, noise of 35 dB at most.
    {"surface_temperature_c", 60, 50, 3, Confirmed, -16.6667, ClaimSense::AtMost},
    {"surface_temperature_c", 60, 57, 3, Confirmed, -5, ClaimSense::AtMost},
    {"surface_temperature_c", 60, 63, 3, Confirmed, 5, ClaimSense::AtMost},
    {"surface_temperature_c", 60, 63.1, 3, Over, 5.1667, ClaimSense::AtMost},
    {"noise_db", 25, 26, 3, NotToldApart, 4, ClaimSense::AtMost},
    {"noise_db", 35, 45, 3, Over, 28.5714, ClaimSense::AtMost},
    {"noise_db", 35, 36, 3, Confirmed, 2.8571, ClaimSense::AtMost},
    // What a tester checks beside the light.
    {"power_factor", 0.95, 0.96, 0.02, Confirmed, 1.0526},
    {"power_factor", 0.95, 0.9, 0.02, Short, -5.2632},
    {"weight_kg", 9.4, 9.65, 0.0965, Over, 2.6596},
    {"weight_kg", 9.4, 9.4, 0.094, Confirmed, 0},
    {"weight_kg", 9.4, 9.0, 0.09, Short, -4.2553},
    {"color_temperature_k", 4000, 3950, 118.5, Confirmed, -1.25},
    {"color_temperature_k", 4000, 3500, 105, Short, -12.5},
    {"rendering_ra", 90, 91, 2, Confirmed, 1.1111},
    {"rendering_ra", 90, 83, 2, Short, -7.7778},
    {"boost_pct", 110, 109.3, 1, Confirmed, -0.6364},
    {"boost_pct", 110, 104, 1, Short, -5.4545},
    // A lamp's light is 100; a map's mean.
    {"equivalent", 100, 97, 4, Confirmed, -3},
    {"equivalent", 100, 80, 4, Short, -20},
    {"equivalent", 100, 130, 4, Over, 30},
    {"equivalent", 100, 104, 12, NotToldApart, 4},
    {"map", 729, 617, 37, Short, -15.3635},
    {"map", 638, 625, 37, Confirmed, -2.0376},
    {"map", 300, 340, 20, Over, 13.3333},
    {"map", 300, 310, 31, NotToldApart, 3.3333},
};

TEST(ClaimVerdict, OfFiguresIsWhatHandsWorkOut) {
  for (const FigureCase& c : figure_cases) {
    SCOPED_TRACE(std::string(c.kind) + " claimed " + std::to_string(c.claimed) + ", measured " +
                 std::to_string(c.measured) + " ± " + std::to_string(c.expanded));
    const Judgement j = judge_figure(c.claimed, {c.measured, c.expanded}, c.sense);
    EXPECT_EQ(j.verdict, c.verdict);
    if (std::isnan(c.difference_pct))
      EXPECT_TRUE(std::isnan(j.difference_pct));
    else
      EXPECT_NEAR(j.difference_pct, c.difference_pct, 6e-5);
  }
  EXPECT_GE(std::size(figure_cases), 50u);
}

TEST(ClaimVerdict, TheChanceIsThatTheClaimIsReached) {
  // One standard deviation under the claim, on it, and over: Φ(−1), Φ(0), Φ(1).
  EXPECT_NEAR(judge_figure(100, {98, 4}).chance, 0.158655, 1e-6);
  EXPECT_NEAR(judge_figure(100, {100, 4}).chance, 0.5, 1e-12);
  EXPECT_NEAR(judge_figure(100, {102, 4}).chance, 0.841345, 1e-6);
  // Of what is to be at most so much, the other side.
  EXPECT_NEAR(judge_figure(100, {98, 4}, ClaimSense::AtMost).chance, 0.841345, 1e-6);
  // Exact counts are reached or not.
  EXPECT_EQ(judge_figure(5, {5, 0}).chance, 1);
  EXPECT_EQ(judge_figure(5, {4, 0}).chance, 0);
}

/// An efficacy's verdict, worked by hand; the driver's share that would explain the claim is 1 − measured ÷ claimed.
struct EfficacyCase {
  double claimed;
  DriverLosses losses;
  double measured, expanded;
  Verdict verdict;
  double driver_share_pct = unread, driver_share_expanded_pct = unread;
};

const EfficacyCase efficacy_cases[] = {
    {2.8, DriverLosses::Counted, 2.77, 0.19, Confirmed, 1.0714, 6.7857},
    {2.8, DriverLosses::NotSaid, 2.5, 0.15, Short, 10.7143, 5.3571},
    {2.8, DriverLosses::Counted, 2.5, 0.15, Short, 10.7143, 5.3571},
    // Left out: what a driver can lose is not short; a fifth is the most.
    {2.8, DriverLosses::LeftOut, 2.5, 0.15, NotTestable, 10.7143, 5.3571},
    {2.9, DriverLosses::LeftOut, 1.91, 0.12, Short, 34.1379, 4.1379},
    {2.5, DriverLosses::LeftOut, 2.0, 0.0, NotTestable, 20, 0},
    {2.5, DriverLosses::LeftOut, 1.999, 0.0, Short, 20.04, 0},
    {2.5, DriverLosses::LeftOut, 1.9, 0.1, NotTestable, 24, 4},
    {2.5, DriverLosses::LeftOut, 1.89, 0.1, Short, 24.4, 4},
    // Within or over the claim at the wall it holds whatever the driver does.
    {2.5, DriverLosses::LeftOut, 2.45, 0.1, Confirmed, 2, 4},
    {2.5, DriverLosses::LeftOut, 2.7, 0.1, Over},
    {2.5, DriverLosses::NotSaid, 2.7, 0.1, Over},
    {2.5, DriverLosses::NotSaid, 2.4, 0.25, NotToldApart, 4, 10},
    // 5.85 µmol/J can be; more cannot, as light or as measurement.
    {5.85, DriverLosses::NotSaid, 3, 0.2, Short, 48.7179, 3.4188},
    {5.86, DriverLosses::NotSaid, 3, 0.2, Contradicted},
    {5.86, DriverLosses::LeftOut, unread, unread, Contradicted},
    {2.8, DriverLosses::NotSaid, 5.9, 0.2, NotTestable},
    {2.8, DriverLosses::NotSaid, unread, unread, NotTestable},
};

TEST(ClaimVerdict, OfEfficacyKnowsTheDriverAndWhatCannotBe) {
  for (const EfficacyCase& c : efficacy_cases) {
    SCOPED_TRACE("claimed " + std::to_string(c.claimed) + ", measured " + std::to_string(c.measured));
    const EfficacyJudgement e = judge_efficacy(c.claimed, c.losses, {c.measured, c.expanded}, 5.85);
    EXPECT_EQ(e.judgement.verdict, c.verdict);
    EXPECT_EQ(e.impossible_claim, c.claimed > 5.85);
    EXPECT_EQ(e.impossible_measurement, c.claimed <= 5.85 && c.measured > 5.85);
    if (std::isnan(c.driver_share_pct)) {
      EXPECT_TRUE(std::isnan(e.driver_share.value));
    } else {
      EXPECT_NEAR(100 * e.driver_share.value, c.driver_share_pct, 6e-5);
      EXPECT_NEAR(100 * e.driver_share.expanded, c.driver_share_expanded_pct, 6e-5);
    }
  }
}

TEST(ClaimVerdict, OfConditionsGoesByTheirChance) {
  EXPECT_EQ(judge_condition(0.95, true).verdict, Confirmed);
  EXPECT_EQ(judge_condition(0.949, true).verdict, NotToldApart);
  EXPECT_EQ(judge_condition(0.0228, true).verdict, NotToldApart);
  EXPECT_EQ(judge_condition(0.0227, true).verdict, Short) << "as a figure is beyond its ±: never open at 1 %";
  EXPECT_EQ(judge_condition(0.0, false).verdict, Contradicted);
  EXPECT_EQ(judge_condition(unread, true).verdict, NotTestable);
}

TEST(ClaimVerdict, OfWhatIsThereOrNotAndOfCounts) {
  EXPECT_EQ(judge_presence(true, true).verdict, Confirmed);
  EXPECT_EQ(judge_presence(true, false).verdict, Contradicted);
  EXPECT_EQ(judge_presence(false, false).verdict, Confirmed);
  EXPECT_EQ(judge_presence(false, true).verdict, Contradicted);
  EXPECT_EQ(judge_presence(true, {}).verdict, NotTestable);
  EXPECT_EQ(judge_count(100, 100).verdict, Confirmed);
  EXPECT_EQ(judge_count(100, 99).verdict, Short);
  EXPECT_EQ(judge_count(100, 101).verdict, Over);
  EXPECT_EQ(judge_count(100, {}).verdict, NotTestable);
}

TEST(ClaimVerdict, IsToldWithItsSize) {
  EXPECT_EQ(verdict_words(judge_figure(300, {228, 5})), "short by 24 %");
  EXPECT_EQ(verdict_words(judge_figure(300, {285, 5})), "short by 5.0 %");
  EXPECT_EQ(verdict_words(judge_figure(300, {330, 5})), "over by 10 %");
  EXPECT_EQ(verdict_words(judge_figure(300, {300, 5})), "confirmed");
  EXPECT_EQ(verdict_words({}), "not testable here");
  EXPECT_EQ(verdict_words(judge_condition(0, false)), "contradicted");
}

TEST(Lift, NamesTheActThatNarrowsMostAndWhatFollows) {
  // 900 claimed, 850 ± 54: parts of 5, 3 and 2.5 % (k = 2) make 6.34 %. A calibration of 3 % leaves 4.92 %.
  const double now = std::sqrt(0.05 * 0.05 + 0.03 * 0.03 + 0.025 * 0.025);
  const SurePart parts[] = {{"calibration", 0.05}, {"fit", 0.03}, {"drift", 0.025}};
  const auto lift = best_lift(900, {850, 850 * now}, parts);
  ASSERT_TRUE(lift);
  EXPECT_EQ(lift->weakest, "the sensor's calibration");
  EXPECT_NEAR(lift->from, 0.0634, 1e-4);
  EXPECT_NEAR(lift->to, std::sqrt(0.03 * 0.03 + 0.03 * 0.03 + 0.025 * 0.025), 1e-12);
  EXPECT_EQ(lift->then, Short);  // 850 ± 42 is short of 900
  EXPECT_EQ(lift_words(*lift, NotToldApart),
            "have the sensor calibrated and its uncertainty stated: ± 6.3 → ± 4.9 %; then the claim is told apart, if "
            "the value "
            "stays");
  EXPECT_EQ(lift_words(*lift, Confirmed), "have the sensor calibrated and its uncertainty stated: ± 6.3 → ± 4.9 %");
}

TEST(Lift, IsNoneWhereNoActHelpsEnough) {
  const SurePart small[] = {{"edges", 0.06}, {"calibration", 0.031}};
  EXPECT_FALSE(best_lift(900, {850, 60}, small));
  EXPECT_FALSE(best_lift(900, {850, 0}, small));
  EXPECT_FALSE(best_lift(900, {unread, unread}, small));
}

TEST(ClaimedMap, IsHeldAgainstOursPlaceByPlace) {
  // Two by two cells of 50 × 50 cm: claimed 400 and 200, ours half of one and all of the other.
  const ClaimedMap map{{1, 1}, GridKind::Cells, 2, 2, {400, 400, 200, 200}};
  const auto layout = claimed_layout(map);
  ASSERT_TRUE(layout);
  const HeldMap held = held_map(map, layout.value(), {200, 200, 200, 200});
  EXPECT_DOUBLE_EQ(held.claimed_mean, 300);
  EXPECT_DOUBLE_EQ(held.our_mean, 200);
  EXPECT_DOUBLE_EQ(held.mean_ratio, 2.0 / 3);
  EXPECT_DOUBLE_EQ(held.claimed_lowest_over_mean, 2.0 / 3);
  EXPECT_DOUBLE_EQ(held.our_lowest_over_mean, 1);
  EXPECT_EQ(held.ratio, (std::vector<double>{0.5, 0.5, 1, 1}));
  // 0.5 ÷ ⅔ − 1 = −¼, 1 ÷ ⅔ − 1 = ½: √((¹⁄₁₆ + ¼) ÷ 2).
  EXPECT_NEAR(held.pattern_spread, std::sqrt((1.0 / 16 + 1.0 / 4) / 2), 1e-12);
}

TEST(ClaimedMap, OfNodesWeighsItsEdgesLess) {
  const ClaimedMap map{{1, 1}, GridKind::Nodes, 3, 3, {0, 0, 0, 0, 400, 0, 0, 0, 0}};
  const HeldMap held = held_map(map, claimed_layout(map).value(), std::vector<double>(9, 100));
  EXPECT_DOUBLE_EQ(held.claimed_mean, 100);  // the middle node weighs a quarter
  EXPECT_TRUE(std::isnan(held.ratio[0]));    // nothing is claimed there
}

TEST(ClaimedMap, IsRefusedWhereValuesAreMissing) {
  EXPECT_FALSE(claimed_layout({{1, 1}, GridKind::Cells, 2, 2, {1, 2, 3}}));
}

TEST(ClaimedMap, LeavesOutWhatLiesOutsideOfItsSquare) {
  // Four by four cells of a floor of 1.2 m; the middle four lie in a square of 60 cm.
  const Layout floor = lay_out({1.2, 1.2}, Grid{GridKind::Cells, 4, 4, 0, 0, {}}).value();
  std::vector<double> ppfd(16, 100);
  for (const int i : {5, 6, 9, 10}) ppfd[static_cast<std::size_t>(i)] = 500;
  const auto outside = outside_of_map(floor, ppfd, {0.6, 0.6});
  ASSERT_TRUE(outside);
  EXPECT_DOUBLE_EQ(outside->inside_mean_ppfd, 500);
  EXPECT_DOUBLE_EQ(outside->outside_mean_ppfd, 100);
  EXPECT_DOUBLE_EQ(outside->outside_share, 0.75);
  EXPECT_FALSE(outside_of_map(floor, ppfd, {1.2, 1.2}));
}

}  // namespace
}  // namespace sunbreak
