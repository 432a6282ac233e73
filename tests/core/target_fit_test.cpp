#include "core/targets/target_fit.h"

#include <gtest/gtest.h>

#include <cmath>
#include <limits>

using namespace sunbreak;

namespace {

struct Ramp {
  Layout layout;
  std::vector<double> ppfd;
};

Ramp ramp(double from, double to) {
  const Layout layout = lay_out({1, 1}, {GridKind::Nodes, 5, 5, 0, 0, {}}).value();
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) ppfd.push_back(from + (to - from) * s.x_m);
  return {layout, ppfd};
}

TargetFit in_band(double share) {
  TargetFit f;
  f.coverage.in_band_share = share;
  return f;
}

}  // namespace

TEST(TargetFits, GiveEachBandItsShareOfOneField) {
  const auto [layout, ppfd] = ramp(0, 1000);
  const auto fits = target_fits(layout, ppfd, std::vector<Band>{{0, 1000}, {250, 500}, {2000, 3000}}, {});
  ASSERT_EQ(fits.size(), 3u);
  EXPECT_NEAR(fits[0].coverage.in_band_share, 1, 1e-12);
  EXPECT_NEAR(fits[1].coverage.in_band_share, 0.25, 0.011);
  EXPECT_EQ(fits[2].coverage.in_band_share, 0);
  EXPECT_NEAR(fits[0].light.edge, 500, 1e-6);
}

TEST(TargetFits, PassByTheRuleTheyAreGiven) {
  const auto passes = [](const Ramp& of, const Band& band, const ServingRule& rule) {
    return target_fits(of.layout, of.ppfd, std::vector<Band>{band}, rule)[0].passes;
  };
  const Ramp even = ramp(400, 600);
  const ServingRule edge{}, every{ServingRule::Kind::Every}, share{ServingRule::Kind::Share, 0.9},
      mean{ServingRule::Kind::Mean};
  EXPECT_TRUE(passes(even, {300, 700}, edge));
  EXPECT_TRUE(passes(even, {450, 700}, edge)) << "along the edge it reads 500, and no station is over 700";
  EXPECT_FALSE(passes(even, {450, 590}, edge)) << "a station reads 600";
  EXPECT_FALSE(passes(even, {450, 700}, share)) << "three quarters in band";
  EXPECT_FALSE(passes(even, {450, 700}, every));
  EXPECT_TRUE(passes(even, {450, 550}, mean));
  // A dark rim: nearly all of the area is in band, but the mean along the edge is not.
  Ramp rim{lay_out({1, 1}, {GridKind::Nodes, 101, 101, 0, 0, {}}).value(), {}};
  for (const Station& s : rim.layout.stations)
    rim.ppfd.push_back(s.column == 0 || s.row == 0 || s.column == 100 || s.row == 100 ? 100 : 500);
  EXPECT_FALSE(passes(rim, {300, 700}, edge));
  EXPECT_TRUE(passes(rim, {300, 700}, share));
}

TEST(TargetFits, OfNoFieldAreNone) {
  const Layout spots = lay_out({1, 1}, {GridKind::Spots, 0, 0, 0, 0, {{"a", 0.2, 0.3}, {"b", 0.7, 0.9}}}).value();
  EXPECT_TRUE(target_fits(spots, std::vector<double>{1, 2}, std::vector<Band>{{0, 5}}, {}).empty());
}

TEST(BestFit, HasTheLargestShareAndAmongAlikeTheFewestWatts) {
  const std::vector<double> watts{300, 200, 100};
  EXPECT_EQ(best_fit(std::vector<TargetFit>{in_band(0.9), in_band(0.5), in_band(0.4)}, watts), 0);
  EXPECT_EQ(best_fit(std::vector<TargetFit>{in_band(0.902), in_band(0.9), in_band(0.4)}, watts), 1) << "alike";
  EXPECT_EQ(best_fit(std::vector<TargetFit>{in_band(0), in_band(0), in_band(0)}, watts), -1);
  const std::vector<double> unknown(3, std::numeric_limits<double>::infinity());
  EXPECT_EQ(best_fit(std::vector<TargetFit>{in_band(0.7), in_band(0.7), in_band(0.7)}, unknown), 0);
}

/// Two of five rows of an even field were read: whatever is asked, the whole of it is not known to be served.
TEST(TargetFits, WhatWasReadInPartIsNotServed) {
  Ramp even = ramp(500, 500);
  for (std::size_t i = 10; i < even.ppfd.size(); ++i) even.ppfd[i] = unread;
  using Kind = ServingRule::Kind;
  for (const ServingRule& rule :
       {ServingRule{Kind::Edge}, ServingRule{Kind::Every}, ServingRule{Kind::Share, 0.2}, ServingRule{Kind::Mean},
        ServingRule{Kind::Corners, 0.9, 400}, ServingRule{Kind::Center, 0.9, 500}}) {
    const TargetFit fit = target_fits(even.layout, even.ppfd, std::vector<Band>{{400, 600}}, rule)[0];
    EXPECT_FALSE(fit.passes) << serving_rule_words(rule, {400, 600});
    EXPECT_TRUE(in_band_text(fit.coverage).starts_with("at least ")) << in_band_text(fit.coverage);
  }
  const TargetFit fit = target_fits(even.layout, even.ppfd, std::vector<Band>{{400, 600}}, {Kind::Every})[0];
  // The front line stands for an eighth of the square, the next for a quarter.
  EXPECT_EQ(lacking_words({Kind::Every}, {400, 600}, fit.light), "only 38 % of it was read");
}
