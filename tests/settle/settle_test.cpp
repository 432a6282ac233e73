#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <array>
#include <cmath>

#include "core/power/dimmer_steps.h"
#include "core/settle/hang_guide.h"
#include "core/settle/settle_maker.h"
#include "core/settle/settle_questions.h"
#include "settle/made_maps.h"

namespace sunbreak::trial {
namespace {

SettleRequest asking(const std::string& rule, Band band, double sure = 0.5) {
  return {band, parse_serving_rule(rule).value(), {}, sure};
}

TEST(SettleRuleTest, IsReadFromTextAndWrittenBack) {
  for (const char* text : {"edge", "every", "share:90", "share:72.5", "mean", "corners:600", "center:800"})
    EXPECT_EQ(serving_rule_id(parse_serving_rule(text).value()), text);
  EXPECT_EQ(parse_serving_rule("share").value().share, 0.9);
  for (const char* text : {"", "edges", "edge:5", "share:0", "share:101", "corners", "center:", "center:x", "mean:3",
                           "share:nan", "corners:-4", "center:1e9"})
    EXPECT_FALSE(parse_serving_rule(text)) << text;
}

TEST(SettleFiguresTest, OfARampAreThoseOfTheFormula) {
  const SettleMaps maps = made_maps({{0.3, ramp(400, 800)}});
  const AreaLight f = settle_figures(*maps.heights[0], {100, 1, 0, 210, 0, 0, 0}, {500, 700});
  EXPECT_NEAR(f.mean, 600, 1e-3);
  EXPECT_NEAR(f.edge, 600, 1e-3);
  // The outer stations lie 5 cm from the walls.
  EXPECT_NEAR(f.lowest, 420, 1e-3);
  EXPECT_NEAR(f.highest, 780, 1e-3);
  EXPECT_NEAR(f.center, 600, 1e-3);
  EXPECT_NEAR(f.corners, 600, 1e-3);
  EXPECT_NEAR(f.in_band, 0.5, 1e-9);
  EXPECT_NEAR(f.too_dim, 0.25, 1e-9);
  EXPECT_NEAR(f.too_bright, 0.25, 1e-9);
}

TEST(SettleFiguresTest, ACellAtALimitLiesInTheBand) {
  const SettleMaps maps = made_maps({{0.3, even(512)}});
  const auto shares = [&](double low, double high) {
    const AreaLight f = settle_figures(*maps.heights[0], {50, 0.5, 0, 110, 0, 0, 0}, {low, high});
    return std::array{f.too_dim, f.in_band, f.too_bright};
  };
  EXPECT_EQ(shares(256, 300), (std::array{0.0, 1.0, 0.0}));
  EXPECT_EQ(shares(200, 256), (std::array{0.0, 1.0, 0.0}));
  EXPECT_EQ(shares(256.001, 300), (std::array{1.0, 0.0, 0.0}));
  EXPECT_EQ(shares(200, 255.999), (std::array{0.0, 0.0, 1.0}));
}

TEST(SettleFiguresTest, BetweenTwoWalkedSettingsArePatternsMixed) {
  SettleMaps maps = made_maps({});
  const auto left = made_light(maps.lattice, ramp(400, 800)), right = made_light(maps.lattice, ramp(800, 400));
  const SettleHeight height = settle_height(maps.lattice, 0.3, {left, right}, {});
  const AreaLight middle = settle_figures(height, {50, 0.5, 0, 100, 0, 1, 0.5}, {299, 301});
  EXPECT_NEAR(middle.lowest, 300, 1e-2);
  EXPECT_NEAR(middle.highest, 300, 1e-2);
  EXPECT_NEAR(middle.in_band, 1, 1e-9);
  // A quarter of the second: 420 · ¾ + 780 · ¼ on the left, 690 on the right.
  const AreaLight quarter = settle_figures(height, {50, 1, 0, 100, 0, 1, 0.25}, {500, 600});
  EXPECT_NEAR(quarter.lowest, 510, 0.1);
  EXPECT_NEAR(quarter.highest, 690, 0.1);
  EXPECT_NEAR(quarter.mean, 600, 1e-3);
  EXPECT_NEAR(quarter.in_band, 0.5, 0.02);
  const auto cells = settle_cells_ppfd(height, {50, 1, 0, 100, 0, 1, 0.25});
  EXPECT_NEAR(cells.front(), 510, 0.01) << "beyond the outer station its value holds";
}

struct RuleCase {
  const char* rule;
  double lowest_factor;  ///< of full light, that just meets it
};

/// Full light 400 at the left to 800 at the right: mean and edge 600, corners 600 at the stations.
TEST(FewestWattsTest, MeetEachRuleExactly) {
  const SettleMaps maps = made_maps({{0.3, ramp(400, 800)}});
  const Band band{180, 480};
  for (const RuleCase c : {RuleCase{"edge", 180.0 / 600},
                           {"every", 180.0 / 420},
                           {"mean", 180.0 / 600},
                           {"corners:240", 240.0 / 600},
                           {"center:300", 300.0 / 600},
                           // Half of the area at 180 or more: the middle, where full light is 600.
                           {"share:50", 180.0 / 600}}) {
    const auto answer = fewest_watts(maps, asking(c.rule, band));
    ASSERT_TRUE(answer) << c.rule << answer.problem().sentence();
    EXPECT_NEAR(answer.value().setting.light_factor, c.lowest_factor, 0.003) << c.rule;
    EXPECT_NEAR(*answer.value().setting.power_w, 10 + 200 * answer.value().setting.light_factor, 1e-6) << c.rule;
  }
}

TEST(FewestWattsTest, ChooseTheHeightThatNeedsThem) {
  const SettleMaps maps = made_maps({{0.3, even(1000)}, {0.6, even(600)}});
  const auto low = fewest_watts(maps, asking("edge", {400, 800}));
  EXPECT_NEAR(low.value().height->height_m, 0.3, 1e-9);
  EXPECT_NEAR(low.value().setting.percent, 40, 0.05);
  // Too bright from near at any setting over 10 %.
  const SettleMaps bright = made_maps({{0.3, even(10000)}, {0.6, even(600)}});
  EXPECT_NEAR(fewest_watts(bright, asking("edge", {400, 800})).value().height->height_m, 0.6, 1e-9);
}

TEST(FewestWattsTest, KeepToEachLimit) {
  const SettleMaps maps = made_maps({{0.3, even(1000)}, {0.45, even(800)}, {0.6, even(600)}});
  SettleRequest request = asking("edge", {400, 900});
  request.limits.min_height_m = 0.4;
  EXPECT_NEAR(fewest_watts(maps, request).value().height->height_m, 0.45, 1e-9);
  request.limits = {};
  request.limits.max_height_m = 0.3;
  EXPECT_NEAR(fewest_watts(maps, request).value().setting.percent, 40, 0.05);
  request.limits = {};
  request.limits.max_power_w = 89;  // 40 % takes 90 W
  EXPECT_FALSE(fewest_watts(maps, request));
  request.limits.max_power_w = 91;
  EXPECT_TRUE(fewest_watts(maps, request));
  request.limits = {};
  request.limits.max_ppfd = 399;
  EXPECT_FALSE(fewest_watts(maps, request));
  EXPECT_NE(fewest_watts(maps, request).problem().sentence(), "");
  request.limits = {0.7, {}, {}, {}};
  EXPECT_EQ(fewest_watts(maps, request).problem().seen, "no height and setting lies within the limits");
}

TEST(FewestWattsTest, SayWhatStandsInTheWay) {
  const SettleMaps dim = made_maps({{0.3, even(300)}});
  EXPECT_EQ(fewest_watts(dim, asking("edge", {400, 800})).problem().seen,
            "too dim everywhere: at best, at 30 cm and 100 %, the edge reads 300 µmol/m²/s");
  const SettleMaps bright = made_maps({{0.3, even(9000)}});
  EXPECT_EQ(fewest_watts(bright, asking("edge", {400, 800})).problem().seen,
            "too bright everywhere: at 30 cm and 10 % the brightest place still reads 900 µmol/m²/s");
  const SettleMaps uneven = made_maps({{0.3, ramp(100, 1000)}});
  EXPECT_EQ(fewest_watts(uneven, asking("every", {90, 110})).problem().seen,
            "too uneven: where the dimmest places have enough light, the brightest have too much");
  SettleMaps unsure = made_maps({{0.3, even(1000)}});
  unsure.shared_sd = 0.05;
  EXPECT_EQ(fewest_watts(unsure, asking("edge", {490, 510}, 0.9)).problem().means, "90 % are asked for");
  SettleMaps no_watts = made_maps({{0.3, even(1000)}});
  for (auto* list : {&no_watts.settings, &no_watts.steps})
    for (SettleSetting& s : *list) s.power_w.reset();
  EXPECT_EQ(fewest_watts(no_watts, asking("edge", {400, 800})).problem().seen, "no watts are on record");
  EXPECT_TRUE(widest(no_watts, asking("edge", {400, 800})));
  EXPECT_EQ(fewest_watts(SettleMaps{}, asking("edge", {400, 800})).problem().seen, "no light is known between heights");
}

TEST(BestWayTest, NamesTheSurestWhereNoneIsSureEnough) {
  SettleMaps maps = made_maps({{0.3, even(1000)}});
  maps.shared_sd = 0.05;
  const auto way = best_way(maps, asking("edge", {490, 510}, 0.9));
  ASSERT_TRUE(way);
  EXPECT_TRUE(way.value().met);
  EXPECT_FALSE(way.value().sure);
  EXPECT_NEAR(way.value().point.figures.mean, 500, 3);
  EXPECT_NEAR(way.value().point.chance, 0.31, 0.05) << "2 % to either side of 5";
}

TEST(BestWayTest, NamesTheNearestWhereNoneMeetsTheRule) {
  // Too dim everywhere: the brightest there is.
  const auto dim = best_way(made_maps({{0.3, even(300)}, {0.6, even(200)}}), asking("edge", {400, 800}));
  EXPECT_FALSE(dim.value().met);
  EXPECT_NEAR(dim.value().point.height->height_m, 0.3, 1e-9);
  EXPECT_EQ(dim.value().point.setting.percent, 100);
  // Too uneven: the most of the area in band, then the edge that lacks least, then the fewest watts.
  const SettleMaps uneven = made_maps({{0.3, pyramid(1000, 1600)}});
  const auto way = best_way(uneven, asking("edge", {500, 900}));
  EXPECT_FALSE(way.value().met);
  double most = 0;
  for (const SettleSetting& s : uneven.steps)
    most = std::max(most, settle_figures(*uneven.heights[0], s, {500, 900}).in_band);
  EXPECT_GE(way.value().point.figures.in_band, most - 0.002);
  EXPECT_FALSE(best_way(SettleMaps{}, asking("edge", {400, 800})));
}

TEST(BestWayTest, StandsWhereTheDimmerCanBeSet) {
  SettleMaps maps = made_maps({{0.3, even(1000)}});
  maps.free_dimmer = false;
  maps.steps.clear();
  for (const double percent : settable_pct(parse_dimmer_steps("10 %").value(), 10, 100))
    maps.steps.push_back({percent, percent / 100, 0, 10 + 2 * percent, 0, 0, 0});
  EXPECT_EQ(fewest_watts(maps, asking("edge", {430, 900})).value().setting.percent, 50);
}

TEST(DimmerStepsTest, AreReadFromWhatPeopleType) {
  EXPECT_EQ(parse_dimmer_steps("").value(), DimmerSteps{});
  EXPECT_TRUE(parse_dimmer_steps(" Free ").value().free);
  EXPECT_EQ(parse_dimmer_steps("5 %").value().step_pct, 5);
  EXPECT_EQ(parse_dimmer_steps("low 40, bloom 100 %, 70").value().marks_pct, (std::vector<double>{40, 70, 100}));
  for (const char* text : {"often", "0", "-5", "300, 20", "nan", "25, x", ","})
    EXPECT_FALSE(parse_dimmer_steps(text)) << text;
  EXPECT_EQ(settable_pct(parse_dimmer_steps("10").value(), 25, 60), (std::vector<double>{30, 40, 50, 60}));
  EXPECT_EQ(settable_pct(parse_dimmer_steps("25,50,75,100").value(), 50, 100), (std::vector<double>{50, 75, 100}));
}

TEST(WidestTest, CoversMostAndThenTakesTheFewestWatts) {
  // From 30 cm the pyramid reaches 500 on (1000 − 500) / 1000 · 2 = the whole side; from 60 cm everywhere, too.
  const SettleMaps maps = made_maps({{0.3, pyramid(1000, 800)}, {0.6, pyramid(900, 400)}});
  const auto answer = widest(maps, asking("every", {350, 650}));
  EXPECT_NEAR(answer.value().height->height_m, 0.6, 1e-9);
  EXPECT_NEAR(answer.value().figures.in_band, 1, 1e-9);
  // All of it from 350 at the corner stations, where full light is 720.
  EXPECT_NEAR(answer.value().setting.percent, 100 * 350 / 720.0, 0.8);
}

TEST(MostEvenTest, HasItsMeanInBand) {
  const SettleMaps maps = made_maps({{0.3, pyramid(1000, 800)}, {0.6, pyramid(900, 400)}, {0.9, even(100)}});
  const auto answer = most_even(maps, asking("edge", {400, 500}));
  EXPECT_NEAR(answer.value().height->height_m, 0.6, 1e-9);
  EXPECT_GE(answer.value().figures.mean, 400);
  // Stations at 5, 15 … 45 cm from the middle's lines: 4, 12, 20, 28 and 36 of them, 33 cm away on average.
  EXPECT_NEAR(answer.value().figures.lowest_over_mean(), 720 / (900 - 400 * 0.33), 0.002);
}

TEST(ChanceTest, IsThatOfTheNormalDistribution) {
  SettleMaps maps = made_maps({{0.3, even(1000)}});
  maps.shared_sd = 0.02;
  const auto chance = [&](double light) {
    return chance_of({}, {500, 2000}, {}, maps.shared_sd, *maps.heights[0], {50, light, 0, 100, 0, 0, 0});
  };
  EXPECT_NEAR(chance(0.5), 0.5, 0.01);
  EXPECT_NEAR(chance(0.5 / (1 - 1.6449 * 0.02)), 0.95, 0.01);
  EXPECT_NEAR(chance(0.5 / (1 + 1.6449 * 0.02)), 0.05, 0.01);
  EXPECT_EQ(chance(0.8), 1);
  // What is sure costs what the draws say.
  const auto sure = fewest_watts(maps, asking("edge", {500, 2000}, 0.95));
  EXPECT_NEAR(sure.value().setting.percent, 50 / (1 - 1.6449 * 0.02), 0.1);
}

TEST(ChanceTest, TakesAllPartsTogether) {
  SettleErrors errors{0.012, 0, 0};
  SettleMaps maps = made_maps({{0.3, even(1000), errors}});
  maps.shared_sd = 0.016;
  const SettleExpanded e = expanded_of({400, 800}, maps.shared_sd, *maps.heights[0], {50, 0.5, 0.015, 100, 0, 0, 0});
  EXPECT_NEAR(e.mean, 2 * 500 * std::sqrt(0.012 * 0.012 + 0.016 * 0.016 + 0.015 * 0.015), 1.5);
  EXPECT_NEAR(e.lowest_over_mean, 0, 1e-9);
  // Edge against center moves ratios, too.
  maps = made_maps({{0.3, even(1000), {0, 0.01, 0}}});
  const SettleExpanded r = expanded_of({400, 800}, 0, *maps.heights[0], {50, 0.5, 0, 100, 0, 0, 0});
  EXPECT_NEAR(r.edge, 2 * 500 * 0.01, 0.4);
  EXPECT_NEAR(r.mean, 0, 1e-6);
  EXPECT_NEAR(r.center, 2 * 500 * 0.01, 0.4);
}

TEST(QuestionsTest, HeightsSettingsAndHours) {
  const SettleMaps maps = made_maps({{0.3, even(1000)}, {0.6, even(500)}});
  const SettleSetting full{100, 1, 0, 210, 0, 0, 0};
  EXPECT_NEAR(height_where_center(maps, full, 1000).value(), 0.3, 1e-9);
  EXPECT_NEAR(height_where_center(maps, full, std::sqrt(1000 * 500.0)).value(), 0.45, 1e-9);
  EXPECT_FALSE(height_where_center(maps, full, 1001));
  EXPECT_FALSE(height_where_center(maps, full, 499));
  EXPECT_NEAR(setting_where_corners(maps, *maps.heights[1], 230).value().percent, 46, 1e-6);
  EXPECT_FALSE(setting_where_corners(maps, *maps.heights[1], 501));
  EXPECT_NEAR(setting_at(maps, 33.3)->power_w.value(), 10 + 66.6, 1e-6);
  EXPECT_FALSE(setting_at(maps, 9));
  EXPECT_NEAR(setting_of_power(maps, 111)->percent, 50.5, 1e-6);
  EXPECT_FALSE(setting_of_power(maps, 211));
  EXPECT_NEAR(*hours_for(500, 27), 15, 1e-9);
  EXPECT_FALSE(hours_for(100, 40));
}

TEST(QuestionsTest, AShrunkFootprintHasItsMean) {
  const SettleMaps maps = made_maps({});
  // Mean over a centered square of side a under the pyramid: 1000 − 1000 · a / 3.
  const auto light = made_cells(maps.lattice, pyramid(1000, 1000));
  const auto shrunk = shrunk_to(maps.lattice, light, 800);
  EXPECT_NEAR(shrunk.square->width_m, 0.6, 2.0 / 48);
  EXPECT_GE(shrunk.rectangle->area_m2(), shrunk.square->area_m2());
  const auto wide = made_cells(maps.lattice, [](double, double y) { return 1000 - 1000 * std::abs(y - 0.5); });
  // Over a strip of depth b: 1000 − 250 · b.
  const auto strip = shrunk_to(maps.lattice, wide, 850);
  EXPECT_NEAR(strip.rectangle->width_m, 1, 1e-9);
  EXPECT_NEAR(strip.rectangle->depth_m, 0.6, 2.0 / 48);
  EXPECT_FALSE(shrunk_to(maps.lattice, light, 1001).square);
}

TEST(HangGuideTest, SaysHowFarByTheInverseSquare) {
  std::vector<double> heights, ppfd;
  for (double h = 0.1; h < 1.001; h += 0.02) heights.push_back(h), ppfd.push_back(100 / (h * h));
  HangGuide guide(heights, ppfd);
  // 400 is read at 50 cm, 625 at 40.
  EXPECT_NEAR(guide.step(400, 625)->raise_m(), -0.1, 1e-3);
  EXPECT_NEAR(guide.step(625, 400)->raise_m(), 0.1, 1e-3);
  EXPECT_FALSE(guide.step(400, 50)) << "over a meter";
  EXPECT_FALSE(guide.step(1e6, 400));
  // Twice the light of the model: read at a height that the tape knows.
  guide.agree(0.5, 800);
  EXPECT_NEAR(guide.step(800, 1250)->wanted_m, 0.4, 1e-3);
  // What rises from below, too near for a center between units, is not used.
  EXPECT_NEAR(HangGuide({0.1, 0.2, 0.3, 0.4}, {50, 200, 100, 50}).step(100, 50)->wanted_m, 0.4, 1e-9);
  EXPECT_FALSE(HangGuide({}, {}).step(1, 2));
}

TEST(CardTest, OneHeightServesMostStages) {
  // At 30 cm all stages can be had but the brightest; at 20 cm it alone.
  const SettleMaps maps = made_maps({{0.2, even(3000)}, {0.3, even(900)}, {0.5, even(600)}});
  const CardStage stages[] = {{{150, 200}, 16}, {{400, 500}, 18}, {{1200, 1500}, 12}};
  const auto each = settle_card(maps, stages, asking("edge", {}), CardPolicy::FewestWatts);
  ASSERT_EQ(each.size(), 3u);
  EXPECT_NEAR(each[0].value().point.height->height_m, 0.3, 1e-9);
  EXPECT_NEAR(each[2].value().point.height->height_m, 0.2, 1e-9);
  const auto one = settle_card(maps, stages, asking("edge", {}), CardPolicy::OneHeight);
  EXPECT_NEAR(one[1].value().point.height->height_m, one[2].value().point.height->height_m, 1e-9);
  EXPECT_FALSE(one[0].value().met) << "10 % of 3000 is 300";
  const CardStage dim[] = {{{2000, 2500}, 16}};
  const auto none = settle_card(made_maps({{0.3, even(900)}}), dim, asking("edge", {}), CardPolicy::OneHeight)[0];
  EXPECT_FALSE(none.value().met);
  EXPECT_NEAR(none.value().point.setting.percent, 100, 0.5) << "the nearest way";
  EXPECT_TRUE(settle_card(maps, dim, asking("edge", {}), CardPolicy::Widest)[0].value().met);
}

TEST(HeightsTest, AreWholeStepsWithinReachAndTheMeasuredOnes) {
  const auto heights = settle_heights_m({0.27, 0.33}, {0.305, 0.3}, 0.01);
  const std::vector<double> expected{0.27, 0.28, 0.29, 0.3, 0.305, 0.31, 0.32, 0.33};
  ASSERT_EQ(heights.size(), expected.size());
  for (std::size_t i = 0; i < heights.size(); ++i) EXPECT_NEAR(heights[i], expected[i], 1e-9);
  EXPECT_EQ(settle_heights_m({0.3, 0.3}, {0.3}, 0.01).size(), 1u);
  EXPECT_LE(settle_heights_m({0.1, 3}, {0.3, 2}, 0.01).size(), most_settle_heights);
}

/// Any light: a ramp and a pyramid mixed, at three heights.
SettleMaps any_maps() {
  std::vector<MadeHeight> heights;
  double height = 0.2;
  for (int k = 0; k < 3; ++k, height += 0.1) {
    const double top = *rc::gen::inRange(300, 1500), fall = *rc::gen::inRange(0, 500), lean = *rc::gen::inRange(0, 200);
    heights.push_back({height, [=](double x, double y) { return pyramid(top, fall)(x, y) + ramp(0, lean)(x, y); }});
  }
  return made_maps(heights);
}

const char* any_rule() { return *rc::gen::element("edge", "every", "share:80", "mean", "corners:200"); }

RC_GTEST_PROP(SettleProperty, AWiderBandNeverNeedsMoreWatts, ()) {
  const SettleMaps maps = any_maps();
  const double low = *rc::gen::inRange(100, 500), high = low + *rc::gen::inRange(20, 600);
  const char* rule = any_rule();
  const auto narrow = fewest_watts(maps, asking(rule, {low, high}));
  const auto wide = fewest_watts(maps, asking(rule, {low - *rc::gen::inRange(0, 80), high + *rc::gen::inRange(0, 80)}));
  if (!narrow) return;
  RC_ASSERT(wide.ok());
  RC_ASSERT(*wide.value().setting.power_w <= *narrow.value().setting.power_w + 0.02);
}

RC_GTEST_PROP(SettleProperty, RaisingTheCeilingNeverMakesItWorse, ()) {
  const SettleMaps maps = any_maps();
  const double low = *rc::gen::inRange(100, 500);
  SettleRequest request = asking(any_rule(), {low, 2 * low});
  request.limits.max_height_m = 0.1 * *rc::gen::inRange(2, 4) + 0.01;
  request.limits.max_power_w = *rc::gen::inRange(80, 180);
  const SettleAnswers before = settle(maps, request);
  *request.limits.max_height_m += 0.1;
  *request.limits.max_power_w += 20;
  const SettleAnswers after = settle(maps, request);
  if (before.fewest_watts) {
    RC_ASSERT(after.fewest_watts.ok());
    RC_ASSERT(*after.fewest_watts.value().setting.power_w <= *before.fewest_watts.value().setting.power_w + 1e-9);
  }
  constexpr double alike = 0.003;
  if (before.widest) RC_ASSERT(after.widest.value().figures.in_band >= before.widest.value().figures.in_band - alike);
  if (before.most_even)
    RC_ASSERT(after.most_even.value().figures.lowest_over_mean() >=
              before.most_even.value().figures.lowest_over_mean() - alike);
}

RC_GTEST_PROP(SettleProperty, ScaledLightIsDimmedAccordingly, ()) {
  const double top = *rc::gen::inRange(600, 900), fall = *rc::gen::inRange(0, 400),
               by = 0.01 * *rc::gen::inRange(60, 160);
  const auto maps = made_maps({{0.3, pyramid(top, fall)}});
  const auto scaled = made_maps({{0.3, pyramid(by * top, by * fall)}});
  const char* rule = *rc::gen::element("edge", "mean", "share:80");
  const auto a = fewest_watts(maps, asking(rule, {200, 600})), b = fewest_watts(scaled, asking(rule, {200, 600}));
  if (!a || !b) return;
  RC_ASSERT(std::abs(b.value().setting.light_factor * by / a.value().setting.light_factor - 1) < 0.01);
}

RC_GTEST_PROP(SettleProperty, SurerNeverTakesLess, ()) {
  SettleMaps maps = any_maps();
  maps.shared_sd = 0.001 * *rc::gen::inRange(0, 30);
  const double low = *rc::gen::inRange(100, 500);
  const char* rule = any_rule();
  const auto likely = fewest_watts(maps, asking(rule, {low, 3 * low}, 0.5));
  const auto sure = fewest_watts(maps, asking(rule, {low, 3 * low}, 0.9));
  if (!sure) return;
  RC_ASSERT(likely.ok());
  RC_ASSERT(*likely.value().setting.power_w <= *sure.value().setting.power_w + 0.02);
  RC_ASSERT(sure.value().chance >= 0.9);
}

}  // namespace
}  // namespace sunbreak::trial
