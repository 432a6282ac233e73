#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>
#include <algorithm>
#include <cmath>

#include "core/figures/area_curve.h"
#include "core/figures/coverage.h"
#include "core/figures/nominal.h"
#include "core/square_bench.h"
#include "core/sweep/field.h"

using namespace sunbreak;

namespace {

Layout grid(GridKind kind, int columns, int rows, const Footprint& fp = square) {
  return lay_out(fp, {kind, columns, rows, 0.1, 0.1, {}}).value();
}

std::vector<double> plane(const Layout& layout, double base, double per_x, double per_y) {
  std::vector<double> values;
  for (const Station& s : layout.stations) values.push_back(base + per_x * s.x_m + per_y * s.y_m);
  return values;
}

Raster raster_of(std::vector<double> ppfd, int columns, int rows) {
  return {{0, 0, columns * 0.01, rows * 0.01}, columns, rows, std::move(ppfd)};
}

/// The largest rectangle by trying every one; for rasters of a few cells.
double largest_by_trial(const Raster& r, const Band& band) {
  int best = 0;
  for (int r0 = 0; r0 < r.rows; ++r0)
    for (int c0 = 0; c0 < r.columns; ++c0)
      for (int r1 = r0; r1 < r.rows; ++r1)
        for (int c1 = c0; c1 < r.columns; ++c1) {
          bool all = true;
          for (int y = r0; y <= r1 && all; ++y)
            for (int x = c0; x <= c1 && all; ++x) all = band.contains(r.at(x, y));
          if (all) best = std::max(best, (r1 - r0 + 1) * (c1 - c0 + 1));
        }
  return best * 1e-4;
}

}  // namespace

TEST(Field, IsExactOnAPlaneBetweenStations) {
  const Layout layout = grid(GridKind::Nodes, 4, 5);
  const Field field(layout, plane(layout, 100, 50, -20));
  for (const auto& [x, y] : {std::pair{0.0, 0.0}, {0.33, 0.71}, {1.2, 1.2}, {0.6, 0.01}})
    EXPECT_NEAR(field.at(x, y), 100 + 50 * x - 20 * y, 1e-9);
}

TEST(Field, KeepsTheOuterValueToTheEdgeOfACellsGrid) {
  const Layout layout = grid(GridKind::Cells, 3, 3);
  const Field field(layout, plane(layout, 0, 100, 0));
  EXPECT_NEAR(field.at(0.0, 0.6), 20, 1e-9);  // outer station at 0.2 m
  EXPECT_NEAR(field.at(0.1, 0.6), 20, 1e-9);
  EXPECT_NEAR(field.at(1.2, 0.6), 100, 1e-9);  // outer station at 1.0 m
  EXPECT_NEAR(field.at(0.5, 0.6), 50, 1e-9);
}

TEST(Field, IsUnknownWhereItLeansOnAnUnreadStation) {
  const Layout layout = grid(GridKind::Cells, 3, 3);
  std::vector<double> values(9, 100);
  values[0] = unread;
  const Field field(layout, values);
  EXPECT_TRUE(std::isnan(field.at(0.1, 0.1)));
  EXPECT_TRUE(std::isnan(field.at(0.5, 0.5)));
  EXPECT_NEAR(field.at(0.7, 0.7), 100, 1e-9);
  EXPECT_NEAR(field.at(0.6, 0.3), 100, 1e-9);  // on the middle column: leans on that column alone
}

TEST(Field, RasterStepsAreAboutOneCentimeter) {
  const Layout layout = grid(GridKind::Cells, 3, 3);
  const Raster raster = Field(layout, std::vector<double>(9, 5)).raster(0.01);
  EXPECT_EQ(raster.columns, 120);
  EXPECT_EQ(raster.rows, 120);
  const Layout feet = grid(GridKind::Cells, 3, 3, {1.2192, 1.2192});
  const Raster odd = Field(feet, std::vector<double>(9, 5)).raster(0.01);
  EXPECT_NEAR(odd.step_x_m() * odd.columns, 1.2192, 1e-12);
  EXPECT_NEAR(odd.step_x_m(), 0.01, 0.0001);
}

TEST(Coverage, OfARampIsItsShareOfTheArea) {
  const Layout layout = grid(GridKind::Nodes, 13, 13);
  const Field field(layout, plane(layout, 0, 1000, 0));  // 0 at the left wall to 1200 at the right
  const Coverage c = coverage(field.raster(), {300, 900});
  EXPECT_NEAR(c.in_band_share, 0.5, 1e-9);
  EXPECT_NEAR(c.too_dim_share, 0.25, 1e-9);
  EXPECT_NEAR(c.too_bright_share, 0.25, 1e-9);
  EXPECT_NEAR(c.largest_rectangle.width_m, 0.6, 1e-9);
  EXPECT_NEAR(c.largest_rectangle.depth_m, 1.2, 1e-9);
  EXPECT_NEAR(c.largest_rectangle.left_m, 0.3, 1e-9);
  EXPECT_NEAR(c.largest_centered_rectangle.width_m, 0.6, 1e-9);
  EXPECT_NEAR(c.largest_centered_circle_m, 0.6, 1e-9);
}

TEST(Coverage, AnEvenFieldCoversAll) {
  const Layout layout = grid(GridKind::Cells, 4, 4);
  const Coverage c = coverage(Field(layout, std::vector<double>(16, 700)).raster(), {600, 1000});
  EXPECT_DOUBLE_EQ(c.in_band_share, 1);
  EXPECT_NEAR(c.in_band_m2, 1.44, 1e-12);
  EXPECT_NEAR(c.largest_centered_circle_m, 1.2, 1e-12);
}

TEST(Coverage, NothingInBandHasNoRectangle) {
  const Layout layout = grid(GridKind::Cells, 4, 4);
  const Coverage c = coverage(Field(layout, std::vector<double>(16, 100)).raster(), {600, 1000});
  EXPECT_EQ(c.in_band_share, 0);
  EXPECT_EQ(c.largest_rectangle.area_m2(), 0);
  EXPECT_EQ(c.largest_centered_circle_m, 0);
}

TEST(Coverage, ACenterOutOfBandHasNoCenteredShape) {
  Raster r = raster_of(std::vector<double>(36, 700), 6, 6);
  r.ppfd[2 * 6 + 2] = 100;
  const Coverage c = coverage(r, {600, 1000});
  EXPECT_EQ(c.largest_centered_rectangle.area_m2(), 0);
  EXPECT_EQ(c.largest_centered_circle_m, 0);
  EXPECT_GT(c.largest_rectangle.area_m2(), 0);
}

TEST(Coverage, UnreadPlacesAreInNoBand) {
  const Layout layout = grid(GridKind::Cells, 4, 4);
  std::vector<double> values(16, 700);
  values[5] = unread;
  const Coverage c = coverage(Field(layout, values).raster(), {600, 1000});
  EXPECT_GT(c.unread_share, 0.1);
  EXPECT_NEAR(c.in_band_share + c.too_dim_share + c.too_bright_share + c.unread_share, 1, 1e-12);
}

RC_GTEST_PROP(Coverage, LargestRectangleIsTheLargest, ()) {
  const int columns = *rc::gen::inRange(1, 9), rows = *rc::gen::inRange(1, 9);
  std::vector<double> ppfd;
  for (int i = 0; i < columns * rows; ++i) ppfd.push_back(*rc::gen::inRange(0, 4) > 0 ? 700 : 100);
  const Raster r = raster_of(ppfd, columns, rows);
  const Coverage c = coverage(r, {600, 1000});
  RC_ASSERT(std::abs(c.largest_rectangle.area_m2() - largest_by_trial(r, {600, 1000})) < 1e-12);
  RC_ASSERT(c.largest_centered_rectangle.area_m2() <= c.largest_rectangle.area_m2() + 1e-12);
}

TEST(AreaCurve, FallsFromTheWholeAreaToNothing) {
  const Layout layout = grid(GridKind::Nodes, 13, 13);
  const AreaCurve curve(Field(layout, plane(layout, 0, 1000, 0)).raster());
  EXPECT_NEAR(curve.area_m2_at_or_above(0), 1.44, 1e-12);
  EXPECT_NEAR(curve.area_m2_at_or_above(600), 0.72, 1e-9);
  EXPECT_EQ(curve.area_m2_at_or_above(1300), 0);
}

RC_GTEST_PROP(AreaCurve, CountsTheSamplesAtOrAbove, ()) {
  std::vector<double> ppfd;
  for (int i = 0; i < 60; ++i) ppfd.push_back(*rc::gen::inRange(0, 8) == 0 ? unread : *rc::gen::inRange(0, 500) / 4.0);
  const AreaCurve curve(raster_of(ppfd, 10, 6));
  const double level = *rc::gen::inRange(-8, 520) / 4.0;
  const auto at_or_above = std::count_if(ppfd.begin(), ppfd.end(), [&](double v) { return v >= level; });
  RC_ASSERT(std::abs(curve.area_m2_at_or_above(level) - static_cast<double>(at_or_above) * 1e-4) < 1e-12);
}

TEST(Nominal, EdgeAndInsideOfARamp) {
  const Layout layout = grid(GridKind::Nodes, 13, 13);
  const auto light = plane(layout, 400, 500, 0);  // 400 … 1000
  const std::vector<Footprint> sizes{{0.6, 0.6}, {1.2, 1.2}, {1.5, 1.5}};
  const auto found = nominal_footprints(layout, light, sizes, Band{600, 1000}, {ServingRule::Kind::Share, 0.9});
  ASSERT_EQ(found.size(), 2u);  // the third does not fit
  EXPECT_NEAR(found[0].light.mean, 700, 1e-9);
  EXPECT_NEAR(found[0].light.edge, 700, 1e-9);
  EXPECT_NEAR(found[0].light.in_band, (0.9 - 0.4) / 0.6, 0.02);
  EXPECT_FALSE(found[0].passes);
  EXPECT_TRUE(nominal_footprints(layout, light, sizes, Band{500, 1000}, {ServingRule::Kind::Share, 0.9})[0].passes);
}

TEST(Field, ALineOfStationsBesideAHoleIsKnownWhateverTheLastBitOfAPlace) {
  const Layout layout = grid(GridKind::Cells, 12, 12);
  std::vector<double> ppfd = plane(layout, 500, 40, 0);
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (layout.stations[i].column == 5) ppfd[i] = unread;
  const Field field(layout, ppfd);
  for (const int column : {4, 6})
    for (const double off_m : {-1e-13, 0.0, 1e-13})
      EXPECT_NEAR(field.at(layout.xs_m[static_cast<std::size_t>(column)] + off_m, 0.6),
                  500 + 40 * layout.xs_m[static_cast<std::size_t>(column)], 1e-6)
          << column << " " << off_m;
}
