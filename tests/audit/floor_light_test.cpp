#include "evaluation/audit/floor_light.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/figures/coverage.h"
#include "core/figures/nominal.h"

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

constexpr ServingRule every_place{ServingRule::Kind::Every};

TEST(ServedAreaTest, EverySettingIsJudgedByItsOwnPattern) {
  const FloorLight floor = floor_with_two_patterns();
  const ServedArea served = served_area(floor, every_place, {450, 550}, {1, 1});
  EXPECT_EQ(served.percent, 100);
  EXPECT_NEAR(served.scale, 1, 1e-9) << "even light serves all of it";
  EXPECT_EQ(served.height_m, 0.4);
}

TEST(ServedAreaTest, OfANarrowBeamItIsTheMiddleThatIsBrightEnough) {
  const FloorLight floor = floor_with_two_patterns();
  // 250 µmol/m²/s in the middle; 1 − 0.8 · u of it at stations a share u of half the side away: 1/8, 3/8, 5/8 …; that
  // at 3/8 reads 175, that at 5/8 would read 125.
  const ServedArea served =
      served_area(floor, every_place, {150, 250}, {1, 1}, floor.settings().front(), ServedSure::Without);
  EXPECT_EQ(served.percent, 50);
  EXPECT_NEAR(served.scale, 0.625, 0.01);
}

TEST(PartOfFloorTest, FiguresAreThoseOfTheMixedLight) {
  const FloorLight floor = floor_with_two_patterns();
  const Rectangle part{0.1, 0.2, 0.7, 0.6};
  const Band band{180, 260};
  PartOfFloor quick(floor, part);
  for (const double share : {0.0, 0.3, 0.85, 1.0}) {
    SettleSetting setting = floor.settings().front();
    setting.lower = 0, setting.upper = 1, setting.upper_share = share, setting.light_factor = 0.6;
    const AreaLight f = quick.figures(0, setting, band);
    const Field field(floor.layout(), floor.ppfd(0, setting));
    const Raster raster = field.raster(part, 1.0 / 48);
    EXPECT_NEAR(f.in_band, in_band_share(raster, band), 1e-12) << share;
    EXPECT_NEAR(f.in_band + f.too_dim + f.too_bright, 1, 1e-12);
    const AreaLight of_mix = AreaPlan(floor.layout(), part).light(floor.ppfd(0, setting));
    EXPECT_NEAR(f.edge, of_mix.edge, 1e-9) << share;
    EXPECT_NEAR(f.center, field.at(0.45, 0.5), 1e-9) << share;
    EXPECT_NEAR(f.lowest, of_mix.lowest, 1e-9) << share;
    EXPECT_NEAR(f.highest, of_mix.highest, 1e-9) << share;
    EXPECT_NEAR(f.mean, of_mix.mean, 1e-9) << share;
    EXPECT_NEAR(f.corners, of_mix.corners, 1e-9) << share;
  }
}

}  // namespace
}  // namespace sunbreak::evaluation
