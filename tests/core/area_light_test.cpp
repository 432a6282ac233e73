#include "core/figures/area_light.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

#include "core/figures/sweep_figures.h"

using namespace sunbreak;

namespace {

std::vector<double> random_light(const Layout& layout, unsigned seed) {
  std::mt19937 random(seed);
  std::vector<double> ppfd;
  for (std::size_t i = 0; i < layout.stations.size(); ++i) ppfd.push_back(300.0 + static_cast<double>(random() % 700));
  return ppfd;
}

Layout cells_of(double width, double depth, int columns, int rows) {
  return lay_out({width, depth}, {GridKind::Cells, columns, rows, 0, 0, {}}).value();
}

}  // namespace

TEST(OneEdge, IsTheMeanOfTheOutermostStationsByTheLengthTheyStandFor) {
  // 3 × 3 stations, 40 cm across and 20 cm deep apart: along the front and far side a middle one stands for 40 cm, on
  // the left and right for 20 cm, a corner for half of both.
  const Layout layout = cells_of(1.2, 0.6, 3, 3);
  const std::vector<double> ppfd{100, 200, 300, 400, 999, 500, 600, 700, 800};
  const double by_hand =
      (30 * (100 + 300 + 600 + 800.0) + 40 * (200 + 700.0) + 20 * (400 + 500.0)) / (4 * 30 + 2 * 40 + 2 * 20);
  EXPECT_NEAR(AreaPlan(layout, layout.measured).edge(ppfd), by_hand, 1e-9);
  EXPECT_NEAR(edge_ppfd(layout, ppfd), by_hand, 1e-9);
  EXPECT_NEAR(rings(layout, ppfd).front().mean_ppfd, by_hand, 1e-9);
}

TEST(OneEdge, OfAPartIsHalfACellInsideItsBorder) {
  // 120 cm with a station every 10: the middle 100 cm are bordered at 10 cm, and its edge is read at 15 cm, where the
  // second ring of stations stands.
  const Layout layout = cells_of(1.2, 1.2, 12, 12);
  const auto ppfd = random_light(layout, 7);
  EXPECT_NEAR(AreaPlan(layout, {0.1, 0.1, 1, 1}).edge(ppfd), rings(layout, ppfd)[1].mean_ppfd, 1e-9);
}

TEST(OneEdge, OfEveryGridTheThreeWaysToItAgree) {
  for (const GridKind kind : {GridKind::Cells, GridKind::Nodes, GridKind::Inset})
    for (const auto& [columns, rows] : {std::pair{12, 12}, {5, 9}, {8, 3}, {2, 2}}) {
      const double margin = kind == GridKind::Inset ? 0.07 : 0;
      const Layout layout = lay_out({1.5, 0.9}, {kind, columns, rows, margin, margin, {}}).value();
      const auto ppfd = random_light(layout, static_cast<unsigned>(columns * rows));
      const double edge = AreaPlan(layout, layout.measured).edge(ppfd);
      EXPECT_NEAR(edge, edge_ppfd(layout, ppfd), 1e-9) << columns << " × " << rows;
      EXPECT_NEAR(edge, rings(layout, ppfd).front().mean_ppfd, 1e-9) << columns << " × " << rows;
      EXPECT_NEAR(edge, sweep_figures(layout, ppfd, {})->edge_ppfd, 1e-9);
    }
}

TEST(OneEdge, MayLackATenthOfItsLineAndNoMore) {
  const Layout layout = cells_of(1.2, 1.2, 12, 12);
  std::vector<double> ppfd(144, 500);
  for (int i = 0; i < 4; ++i) ppfd[static_cast<std::size_t>(i)] = unread;
  EXPECT_NEAR(AreaPlan(layout, layout.measured).edge(ppfd), 500, 1e-9);
  EXPECT_NEAR(edge_ppfd(layout, ppfd), 500, 1e-9);
  ppfd[4] = unread;
  EXPECT_TRUE(std::isnan(AreaPlan(layout, layout.measured).edge(ppfd)));
  EXPECT_TRUE(std::isnan(edge_ppfd(layout, ppfd)));
}

TEST(AreaPlanTest, OfAllThatWasMeasuredHasTheSweepsOwnFigures) {
  for (const GridKind kind : {GridKind::Cells, GridKind::Nodes, GridKind::Inset}) {
    const double margin = kind == GridKind::Inset ? 0.05 : 0;
    const Layout layout = lay_out({1.2, 1}, {kind, 7, 8, margin, margin, {}}).value();
    const auto ppfd = random_light(layout, 3);
    const SweepFigures sweep = *sweep_figures(layout, ppfd, {});
    const AreaLight light = AreaPlan(layout, layout.measured).light(ppfd);
    EXPECT_NEAR(light.mean, sweep.mean_ppfd, 1e-9);
    EXPECT_NEAR(light.center, sweep.center_ppfd, 1e-9);
    EXPECT_NEAR(light.corners, sweep.corner_ppfd, 1e-9);
    EXPECT_EQ(light.lowest, sweep.lowest.ppfd);
    EXPECT_EQ(light.highest, sweep.highest.ppfd);
  }
}

TEST(AreaPlanTest, OfAPartIsTheExactMeanOfTheFieldAndTheExtremesOfItsStations) {
  const Layout layout = cells_of(1.2, 1.2, 12, 12);
  std::vector<double> ramp;
  for (const Station& s : layout.stations) ramp.push_back(1000 * s.x_m);
  const AreaPlan plan(layout, {0.32, 0.41, 0.5, 0.3});
  EXPECT_NEAR(plan.mean(ramp), 570, 1e-9);
  EXPECT_NEAR(plan.center(ramp), 570, 1e-9);
  EXPECT_NEAR(plan.lowest(ramp), 350, 1e-9) << "the first column of stations in it, at 35 cm";
  EXPECT_NEAR(plan.highest(ramp), 750, 1e-9);
  const Raster fine = Field(layout, ramp).raster({0.32, 0.41, 0.5, 0.3}, 0.01);
  EXPECT_NEAR(plan.mean(ramp),
              std::accumulate(fine.ppfd.begin(), fine.ppfd.end(), 0.0) / static_cast<double>(fine.ppfd.size()), 0.5);
}

TEST(AreaPlanTest, OfAPartWithoutAStationTakesTheNearest) {
  const Layout layout = cells_of(1, 1, 2, 2);
  const std::vector<double> ppfd{1, 2, 3, 4};
  EXPECT_EQ(AreaPlan(layout, {0.4, 0.4, 0.1, 0.1}).stations().size(), 1u);
  EXPECT_EQ(AreaPlan(layout, {0.4, 0.4, 0.1, 0.1}).lowest(ppfd), 1);
}

TEST(ServingRuleTest, WhatIsLackingIsToldAndNeverRoundedToNothing) {
  AreaLight light;
  light.edge = 554.7, light.highest = 950, light.mean = 700, light.lowest = 400, light.in_band = 0.8;
  const Band band{555, 925};
  EXPECT_EQ(lacking_words({}, band, light), "the edge is 1 µmol/m²/s short, the brightest station 25 over");
  light.edge = 515;
  light.highest = 900;
  EXPECT_EQ(lacking_words({}, band, light), "the edge is 40 µmol/m²/s short");
  EXPECT_EQ(lacking_words({ServingRule::Kind::Every}, band, light), "the dimmest station is 155 µmol/m²/s short");
  EXPECT_EQ(lacking_words({ServingRule::Kind::Mean}, band, light), "");
  EXPECT_NE(
      lacking_words({ServingRule::Kind::Share, 0.9}, band, light).find("80 % of the area is in band instead of 90"),
      std::string::npos);
}
