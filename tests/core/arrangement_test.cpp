#include <gtest/gtest.h>

#include <numeric>

#include "core/optics/hung_fixture.h"
#include "core/optics/nominal_fixture.h"
#include "core/uncertainty/pattern_change.h"

using namespace sunbreak;

namespace {

FixtureOutline four_units() {
  FixtureOutline o;
  o.width_m = 0.2, o.depth_m = 0.1, o.across = 2, o.deep = 1;
  o.columns = o.rows = 2;
  o.spacing_x_m = 0.6, o.spacing_y_m = 0.4;
  return o;
}

}  // namespace

TEST(Arrangement, UnitsLieInALatticeAboutTheMiddle) {
  const FixtureOutline o = four_units();
  ASSERT_EQ(units_of(o), 4);
  EXPECT_NEAR(unit_place(o, 0).x_m, -0.3, 1e-12);
  EXPECT_NEAR(unit_place(o, 0).y_m, -0.2, 1e-12);
  EXPECT_NEAR(unit_place(o, 3).x_m, 0.3, 1e-12);
  EXPECT_NEAR(unit_place(o, 3).y_m, 0.2, 1e-12);
  EXPECT_NEAR(whole_width_m(o), 0.8, 1e-12);
  EXPECT_NEAR(whole_depth_m(o), 0.5, 1e-12);
  const auto emitters = nominal_fixture(o);
  EXPECT_EQ(emitters.size(), 8u);
  double sum = 0, x = 0, y = 0;
  for (const Emitter& e : emitters) sum += e.ppf_umol_s, x += e.place_m.x, y += e.place_m.y;
  EXPECT_NEAR(sum, 1, 1e-12);
  EXPECT_NEAR(x, 0, 1e-12);
  EXPECT_NEAR(y, 0, 1e-12);
}

TEST(Arrangement, TurnedByAQuarterWidthBecomesDepth) {
  FixtureOutline o = four_units();
  const UnitPlace front_left = unit_place(o, 0);
  o.turn_deg = 90;
  const UnitPlace turned = turned_unit_place(o, 0);
  EXPECT_NEAR(turned.x_m, -front_left.y_m, 1e-12);
  EXPECT_NEAR(turned.y_m, front_left.x_m, 1e-12);
  double across = 0, deep = 0;
  for (int unit = 0; unit < 4; ++unit)
    for (const UnitPlace& corner : unit_corners(o, unit))
      across = std::max(across, std::abs(corner.x_m)), deep = std::max(deep, std::abs(corner.y_m));
  EXPECT_NEAR(across, 0.25, 1e-12) << "half of what was its depth";
  EXPECT_NEAR(deep, 0.4, 1e-12);
}

TEST(Arrangement, TheModelHangsTheSamePlacesAsTheDescription) {
  FixtureOutline o = four_units();
  o.turn_deg = 30;
  o.unit_tilt_deg = 20;
  const auto described = nominal_fixture(o);
  const HungFixture hung(o);
  ASSERT_EQ(hung.units(), 4);
  std::vector<LobeSource> sources;
  for (int unit = 0; unit < 4; ++unit)
    for (const LobeSource& s : hung.unit(unit, Hang{}, {})) sources.push_back(s);
  ASSERT_EQ(sources.size(), described.size());
  for (std::size_t i = 0; i < sources.size(); ++i) {
    EXPECT_NEAR(sources[i].place_m.x, described[i].place_m.x, 1e-12);
    EXPECT_NEAR(sources[i].place_m.y, described[i].place_m.y, 1e-12);
    EXPECT_NEAR(sources[i].place_m.z, described[i].place_m.z, 1e-12);
    EXPECT_NEAR(dot(sources[i].axis, described[i].direction), 1, 1e-12);
  }
  // A tilted unit's middle stays at its height, and its light goes inward.
  double height = 0;
  for (const Emitter& e : described) height += e.place_m.z / static_cast<double>(described.size());
  EXPECT_NEAR(height, 0, 1e-12);
  o.turn_deg = 0;
  EXPECT_GT(nominal_fixture(o).front().direction.x, 0) << "the left column shines to the right";
}

namespace {

const Layout& twelve() {
  static const Layout layout = lay_out({1.2, 1.2}, Grid{GridKind::Cells, 12, 12, 0, 0, {}}).value();
  return layout;
}

std::vector<double> hill(double amount) {
  std::vector<double> ppfd;
  for (const Station& s : twelve().stations)
    ppfd.push_back(amount * (1 - 0.4 * (std::pow(s.x_m - 0.6, 2) + std::pow(s.y_m - 0.6, 2))));
  return ppfd;
}

}  // namespace

TEST(PatternChange, LessLightInTheSamePatternIsNoChangeOfIt) {
  const auto change = pattern_change(twelve(), hill(570), hill(600), {}, {});
  EXPECT_NEAR(change.rms, 0, 1e-12);
  EXPECT_FALSE(change.beyond);
  EXPECT_GT(change.expected_rms, 0.014) << "two readings of 1 % each";
}

TEST(PatternChange, AShareIsItsStationAgainstTheMeanByHand) {
  std::vector<double> before(144, 500), now(144, 500);
  now[7] = 400;
  const auto change = pattern_change(twelve(), now, before, {}, {});
  const double mean = (143 * 500 + 400) / 144.0;
  EXPECT_NEAR(change.share[7], 400 / mean * 500 / 500 - 1, 1e-12);
  EXPECT_NEAR(change.share[8], 500 / mean - 1, 1e-12);
  EXPECT_EQ(change.farthest, 7);
  EXPECT_TRUE(change.beyond) << "20 % at one station, where 1.4 % can be expected";
}

TEST(PatternChange, HungAnewWithinTheUncertaintyIsWithinIt) {
  // The same light, 4 mm to the right: what a place that is sure to 5 mm may do.
  std::vector<double> shifted;
  for (const Station& s : twelve().stations)
    shifted.push_back(600 * (1 - 0.4 * (std::pow(s.x_m - 0.604, 2) + std::pow(s.y_m - 0.6, 2))));
  EXPECT_FALSE(pattern_change(twelve(), shifted, hill(600), {}, {}).beyond);
  // A bar that went out: the three columns under it read a tenth less.
  std::vector<double> dark = hill(600);
  for (std::size_t i = 0; i < dark.size(); ++i)
    if (i % 12 < 3) dark[i] *= 0.9;
  EXPECT_TRUE(pattern_change(twelve(), dark, hill(600), {}, {}).beyond);
}

TEST(PatternChange, WhatIsReadOnceIsLeftOut) {
  std::vector<double> now = hill(600), before = hill(600);
  now[0] = before[5] = std::nan("");
  const auto change = pattern_change(twelve(), now, before, {}, {});
  EXPECT_TRUE(std::isnan(change.share[0]) && std::isnan(change.share[5]));
  EXPECT_NEAR(change.share[70], 0, 1e-12);
  const std::vector<double> nothing(144, std::nan(""));
  EXPECT_EQ(pattern_change(twelve(), nothing, before, {}, {}).farthest, -1);
}
