#include <gtest/gtest.h>

#include <cmath>

#include "core/bench/infer_grid.h"
#include "core/bench/station_box.h"
#include "core/figures/sweep_figures.h"

using namespace sunbreak;

namespace {

Layout lattice(GridKind kind, int columns, int rows, const Footprint& fp, double margin = 0.05) {
  return lay_out(fp, {kind, columns, rows, margin, margin, {}}).value();
}

}  // namespace

TEST(Rings, OfALongBenchEndWhereItsShortSideMeets) {
  const Layout layout = lattice(GridKind::Cells, 4, 8, {0.6, 1.2});
  std::vector<double> ppfd;
  for (const Station& s : layout.stations)
    ppfd.push_back(100 * (1 + std::min({s.column, s.row, 3 - s.column, 7 - s.row})));
  const auto found = rings(layout, ppfd);
  ASSERT_EQ(found.size(), 2u);
  EXPECT_EQ(found[0].read, 20);
  EXPECT_EQ(found[1].read, 12);
  EXPECT_DOUBLE_EQ(found[0].mean_ppfd, 100);
  EXPECT_DOUBLE_EQ(found[1].mean_ppfd, 200);
  EXPECT_NEAR(found[0].inner_m, 0.15, 1e-12);
}

TEST(Rings, SayNothingWhereNothingIsRead) {
  const Layout layout = lattice(GridKind::Cells, 4, 4, {1, 1});
  std::vector<double> ppfd(16, 300);
  for (const int i : {5, 6, 9, 10}) ppfd[i] = unread;
  const auto found = rings(layout, ppfd);
  EXPECT_EQ(found[1].read, 0);
  EXPECT_TRUE(std::isnan(found[1].mean_ppfd));
}

TEST(Balance, AHoleInTheReadingsDoesNotMoveTheCentroid) {
  const Layout layout = lattice(GridKind::Cells, 6, 6, {1.2, 1.2});
  std::vector<double> even(36, 400);
  even[0] = even[1] = even[6] = unread;
  const Balance b = balance(layout, even);
  EXPECT_NEAR(b.centroid_x_m, 0, 1e-12);
  EXPECT_NEAR(b.left_right_pct, 0, 1e-12);
}

TEST(Balance, DiagonalsTellCornersApart) {
  const Layout layout = lattice(GridKind::Cells, 6, 6, {1.2, 1.2});
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) ppfd.push_back(400 + 20 * s.column + 20 * s.row);
  const Balance b = balance(layout, ppfd);
  EXPECT_GT(b.diagonal_rise_pct, 10);
  EXPECT_NEAR(b.diagonal_fall_pct, 0, 1e-9);
}

TEST(Nominal, FeetFitInABenchThatIsCalledSo) {
  const auto at = [](const Footprint& fp) {
    const Layout layout = lattice(GridKind::Cells, 8, 8, fp);
    return sweep_figures(layout, std::vector<double>(64, 700),
                         {std::nullopt, 12, Band{600, 1000}, usual_foot_sizes(), {}})
        ->nominal;
  };
  EXPECT_EQ(at({1.2192, 1.2192}).size(), 5u) << "2 x 2, 2 x 4, 4 x 2, 3 x 3, 4 x 4";
  EXPECT_EQ(at({1.2, 1.2}).size(), 5u) << "120 cm are called 4 ft";
  EXPECT_EQ(at({1.17, 1.17}).size(), 2u);
  for (const NominalFootprint& size : at({1.2192, 1.2192})) {
    EXPECT_TRUE(size.passes);
    EXPECT_DOUBLE_EQ(size.light.in_band, 1);
  }
}

TEST(InferGrid, FillsInALineThatWasNotRead) {
  const Footprint fp{1.2, 1.2};
  const Layout layout = lattice(GridKind::Cells, 6, 6, fp);
  std::vector<Place> places;
  for (const Station& s : layout.stations)
    if (s.row != 2) places.push_back({s.x_m, s.y_m});
  const auto found = infer_grid(fp, GridKind::Cells, places, {});
  ASSERT_TRUE(found.ok());
  EXPECT_EQ(found.value().grid.rows, 6);
  for (const int station : found.value().stations) EXPECT_NE(station / 6, 2);
}

TEST(InferGrid, TapeErrorsOfAFewMillimetersAreTaken) {
  const Footprint fp{1.2, 1.2};
  std::vector<Place> places;
  for (const Station& s : lattice(GridKind::Cells, 6, 6, fp).stations)
    places.push_back({s.x_m + 0.006 * ((s.column + s.row) % 3 - 1), s.y_m - 0.005 * (s.row % 2)});
  const auto found = infer_grid(fp, GridKind::Cells, places, {});
  ASSERT_TRUE(found.ok());
  EXPECT_EQ(found.value().grid.columns, 6);
}

TEST(StationNear, IsTheOneThatIsPointedAt) {
  const Layout layout = lattice(GridKind::Inset, 5, 5, {1.2, 1.2}, 0.1);
  for (const Station& s : layout.stations)
    EXPECT_EQ(station_near(layout, s.x_m + 0.03, s.y_m - 0.03), layout.index(s.column, s.row));
  EXPECT_FALSE(station_near(layout, -0.1, 0.5).has_value());
  const Layout spots = lay_out({1.2, 1.2}, {GridKind::Spots, 0, 0, 0, 0, {{"a", 0.2, 0.3}, {"b", 0.9, 0.4}}}).value();
  EXPECT_EQ(station_near(spots, 0.8, 0.4), 1);
}

TEST(SweepFigures, SpotsHaveNoFieldAndNoRings) {
  const Layout spots =
      lay_out({1.2, 1.2}, {GridKind::Spots, 0, 0, 0, 0, {{"a", 0.2, 0.3}, {"b", 0.9, 0.4}, {"c", 0.5, 0.8}}}).value();
  const auto f = sweep_figures(spots, std::vector<double>{300, 400, 500},
                               {std::nullopt, 12, Band{100, 600}, usual_metric_sizes(), {}});
  EXPECT_DOUBLE_EQ(f->mean_ppfd, 400);
  EXPECT_TRUE(f->rings.empty());
  EXPECT_FALSE(f->coverage.has_value());
  EXPECT_TRUE(f->nominal.empty());
}
