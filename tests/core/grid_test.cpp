#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>
#include <algorithm>
#include <numeric>
#include <set>

#include "core/bench/grid.h"
#include "core/bench/infer_grid.h"
#include "core/bench/station_box.h"
#include "core/bench/walk_order.h"
#include "core/square_bench.h"

using namespace sunbreak;

namespace {

double weight_sum(const Layout& layout) {
  return std::accumulate(layout.stations.begin(), layout.stations.end(), 0.0,
                         [](double sum, const Station& s) { return sum + s.weight; });
}

Layout laid_out(const Footprint& fp, const Grid& grid) { return lay_out(fp, grid).value(); }

}  // namespace

TEST(Cells, StationsSitAtTheMiddlesAndWeighTheSame) {
  const Layout layout = laid_out(square, {GridKind::Cells, 4, 3, 0, 0, {}});
  ASSERT_EQ(layout.stations.size(), 12u);
  EXPECT_NEAR(layout.stations[0].x_m, 0.15, 1e-12);
  EXPECT_NEAR(layout.stations[0].y_m, 0.2, 1e-12);
  EXPECT_NEAR(layout.stations[11].x_m, 1.05, 1e-12);
  EXPECT_NEAR(layout.stations[11].y_m, 1.0, 1e-12);
  for (const Station& s : layout.stations) EXPECT_NEAR(s.weight, 1.0 / 12, 1e-15);
  EXPECT_NEAR(layout.measured.area_m2(), 1.44, 1e-12);
}

TEST(Nodes, EdgesWeighHalfAndCornersAQuarter) {
  const Layout layout = laid_out(square, {GridKind::Nodes, 3, 3, 0, 0, {}});
  const double corner = layout.stations[0].weight, edge = layout.stations[1].weight, middle = layout.stations[4].weight;
  EXPECT_NEAR(corner * 4, middle, 1e-15);
  EXPECT_NEAR(edge * 2, middle, 1e-15);
  EXPECT_NEAR(layout.stations[0].x_m, 0, 1e-15);
  EXPECT_NEAR(layout.stations[8].x_m, 1.2, 1e-15);
  EXPECT_NEAR(weight_sum(layout), 1, 1e-12);
}

TEST(Inset, TheAreaIsTheOneInsideTheOuterStations) {
  const Layout layout = laid_out(square, {GridKind::Inset, 5, 5, 0.1, 0.2, {}});
  EXPECT_NEAR(layout.measured.width_m, 1.0, 1e-12);
  EXPECT_NEAR(layout.measured.depth_m, 0.8, 1e-12);
  EXPECT_NEAR(layout.stations.front().x_m, 0.1, 1e-12);
  EXPECT_NEAR(layout.stations.back().y_m, 1.0, 1e-12);
  EXPECT_NEAR(weight_sum(layout), 1, 1e-12);
}

TEST(Spots, NineAreWeighedBySimpsonsRule) {
  const Layout layout = laid_out(square, {GridKind::Spots, 0, 0, 0, 0, nine_spots(square)});
  EXPECT_TRUE(layout.nine_point);
  EXPECT_NEAR(weight_sum(layout), 1, 1e-12);
  for (const Station& s : layout.stations) {
    const bool mid_x = std::abs(s.x_m - 0.6) < 1e-9, mid_y = std::abs(s.y_m - 0.6) < 1e-9;
    EXPECT_NEAR(s.weight * 36, (mid_x ? 4 : 1) * (mid_y ? 4 : 1), 1e-9) << s.name;
  }
}

TEST(Spots, LooseOnesWeighAlike) {
  const Layout layout = laid_out(square, {GridKind::Spots, 0, 0, 0, 0, {{"a", 0.2, 0.3}, {"b", 0.9, 0.4}}});
  EXPECT_FALSE(layout.nine_point);
  EXPECT_NEAR(layout.stations[0].weight, 0.5, 1e-15);
}

TEST(LayOut, RefusesWhatCannotBeWalked) {
  EXPECT_FALSE(lay_out(square, {GridKind::Cells, 0, 5, 0, 0, {}}).ok());
  EXPECT_FALSE(lay_out(square, {GridKind::Inset, 5, 5, 0.6, 0.1, {}}).ok());
  EXPECT_FALSE(lay_out(square, {GridKind::Spots, 0, 0, 0, 0, {}}).ok());
  EXPECT_FALSE(lay_out(square, {GridKind::Spots, 0, 0, 0, 0, {{"out", 1.3, 0.2}}}).ok());
  EXPECT_FALSE(lay_out(square, {GridKind::Cells, 5000, 5000, 0, 0, {}}).ok());
}

TEST(WalkOrder, SnakesFromTheFarRowToTheDoor) {
  const Layout layout = laid_out(square, {GridKind::Cells, 3, 2, 0, 0, {}});
  EXPECT_EQ(walk_order(layout, WalkOrder::FarToDoor), (std::vector<int>{3, 4, 5, 2, 1, 0}));
}

RC_GTEST_PROP(WalkOrder, VisitsEveryStationOnceAndNeverJumps, ()) {
  const int columns = *rc::gen::inRange(1, 20), rows = *rc::gen::inRange(1, 20);
  const Layout layout = laid_out(square, {GridKind::Cells, columns, rows, 0, 0, {}});
  const auto order = walk_order(layout, WalkOrder::FarToDoor);
  RC_ASSERT(std::set<int>(order.begin(), order.end()).size() == layout.stations.size());
  for (std::size_t i = 1; i < order.size(); ++i) {
    const Station &a = layout.stations[order[i - 1]], &b = layout.stations[order[i]];
    RC_ASSERT(std::abs(a.column - b.column) + std::abs(a.row - b.row) == 1);
    RC_ASSERT(b.row <= a.row);
  }
}

RC_GTEST_PROP(Weights, AlwaysAddUpToOne, ()) {
  const auto kind = *rc::gen::element(GridKind::Cells, GridKind::Nodes, GridKind::Inset);
  const int columns = *rc::gen::inRange(2, 30), rows = *rc::gen::inRange(2, 30);
  const Layout layout = laid_out({0.6, 1.2}, {kind, columns, rows, 0.05, 0.08, {}});
  RC_ASSERT(std::abs(weight_sum(layout) - 1) < 1e-12);
}

RC_GTEST_PROP(StationBox, TilesTheMeasuredArea, ()) {
  const auto kind = *rc::gen::element(GridKind::Cells, GridKind::Nodes, GridKind::Inset);
  const int columns = *rc::gen::inRange(2, 15), rows = *rc::gen::inRange(2, 15);
  const Layout layout = laid_out({1.0, 1.4}, {kind, columns, rows, 0.05, 0.08, {}});
  double area = 0;
  for (const Rectangle& box : station_boxes(layout)) area += box.area_m2();
  RC_ASSERT(std::abs(area - layout.measured.area_m2()) < 1e-9);
}

RC_GTEST_PROP(InferGrid, FindsTheGridThatPlacesLieOn, ()) {
  const auto kind = *rc::gen::element(GridKind::Cells, GridKind::Nodes);
  const int columns = *rc::gen::inRange(2, 16), rows = *rc::gen::inRange(2, 16);
  const Footprint fp{1.2, 0.9};
  const Layout layout = laid_out(fp, {kind, columns, rows, 0, 0, {}});
  std::vector<Place> places;
  for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m});
  std::reverse(places.begin(), places.end());
  const auto found = infer_grid(fp, kind, places, {});
  RC_ASSERT(found.ok());
  RC_ASSERT(found.value().grid.columns == columns && found.value().grid.rows == rows);
  for (std::size_t i = 0; i < places.size(); ++i)
    RC_ASSERT(found.value().stations[i] == static_cast<int>(places.size() - 1 - i));
}

TEST(InferGrid, RefusesPlacesOfAnotherBench) {
  std::vector<Place> places{{0.1, 0.1}, {1.9, 0.1}};
  EXPECT_FALSE(infer_grid(square, GridKind::Cells, places, {}).ok());
}

TEST(Spots, AreAFewStations) {
  Grid grid{GridKind::Spots, 0, 0, 0, 0, {}};
  for (std::size_t i = 0; i < most_spots; ++i)
    grid.spots.push_back({"", 0.001 + 0.0029 * static_cast<double>(i), 0.002 + 0.0028 * static_cast<double>(i)});
  EXPECT_TRUE(lay_out({1.2, 1.2}, grid).ok());
  for (int i = 0; i < 20'000; ++i) grid.spots.push_back({"", 0.00005 * i, 0.6});
  const auto many = lay_out({1.2, 1.2}, grid);
  ASSERT_FALSE(many.ok());
  EXPECT_NE(many.problem().sentence().find("20400 stations"), std::string::npos);
}
