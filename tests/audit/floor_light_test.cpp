#include "evaluation/audit/floor_light.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace sunbreak::evaluation {
namespace {

/// A floor of one meter at one height, with a dimmer that narrows the beam: at half its light falls off from the middle
/// to a fifth at the walls, at full it is even.
FloorLight floor_with_two_patterns() {
  SettleMaps maps;
  maps.lattice = settle_lattice({0, 0, 1, 1}, lay_out({1, 1}, Grid{GridKind::Cells, 8, 8, 0, 0, {}}).value());
  std::vector<double> narrow, even;
  for (const Vec3& place : maps.lattice.places) {
    const double aside = 2 * std::max(std::abs(place.x - 0.5), std::abs(place.y - 0.5));
    narrow.push_back(500 * (1 - 0.8 * aside));
    even.push_back(500);
  }
  maps.heights.push_back(std::make_shared<SettleHeight>(settle_height(maps.lattice, 0.4, {narrow, even}, {})));
  maps.steps = {{50, 0.5, 0, {}, 0, 0, 0}, {100, 1, 0, {}, 1, 1, 0}};
  return FloorLight::of_maps(maps);
}

constexpr SettleRule every_place{SettleRule::Kind::Every};

TEST(ServedAreaTest, EverySettingIsJudgedByItsOwnPattern) {
  const FloorLight floor = floor_with_two_patterns();
  const ServedArea served = served_area(floor, every_place, {450, 550}, {1, 1});
  EXPECT_EQ(served.percent, 100);
  EXPECT_NEAR(served.scale, 1, 1e-9) << "even light serves all of it";
  EXPECT_EQ(served.height_m, 0.4);
}

TEST(ServedAreaTest, OfANarrowBeamItIsTheMiddleThatIsBrightEnough) {
  const FloorLight floor = floor_with_two_patterns();
  // 250 µmol/m²/s in the middle; 1 − 0.8 · scale of it at the area's sides, read at the middles of 48 cells.
  const ServedArea served =
      served_area(floor, every_place, {150, 250}, {1, 1}, floor.settings().front(), ServedSure::Without);
  EXPECT_EQ(served.percent, 50);
  EXPECT_NEAR(served.scale, 0.5, 2.0 / 48);
}

}  // namespace
}  // namespace sunbreak::evaluation
