#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

#include "core/figures/area_curve.h"
#include "core/figures/coverage.h"
#include "core/figures/rings.h"
#include "core/square_bench.h"
#include "core/sweep/cut.h"
#include "core/sweep/isolines.h"

using namespace sunbreak;

namespace {

constexpr double pi = std::numbers::pi;
using Light = std::function<double(double, double)>;

double from_middle(double x, double y) { return std::hypot(x - 0.6, y - 0.6); }
double plane(double x, double y) { return 300 + 250 * x + 100 * y; }
double saddle(double x, double y) { return 500 + 400 * (x - 0.6) * (y - 0.6); }
double cone(double x, double y) { return 1000 - 800 * from_middle(x, y); }
constexpr double gaussian_width = 0.4;
double gaussian(double x, double y) {
  return 900 * std::exp(-std::pow(from_middle(x, y), 2) / (2 * gaussian_width * gaussian_width));
}

struct Sampled {
  Layout layout;
  std::vector<double> ppfd;
  Field field() const { return {layout, ppfd}; }
};

Sampled sampled(const Light& light, GridKind kind, int columns, int rows) {
  Sampled s{lay_out(square, {kind, columns, rows, 0.05, 0.05, {}}).value(), {}};
  for (const Station& station : s.layout.stations) s.ppfd.push_back(light(station.x_m, station.y_m));
  return s;
}

double length(const Isoline& line) {
  double sum = 0;
  for (std::size_t i = 1; i < line.places.size(); ++i)
    sum += std::hypot(line.places[i].x_m - line.places[i - 1].x_m, line.places[i].y_m - line.places[i - 1].y_m);
  return sum;
}

/// The largest distance of a line's places from a circle about the middle.
double off_circle(const Isoline& line, double radius) {
  double worst = 0;
  for (const Place& p : line.places) worst = std::max(worst, std::abs(from_middle(p.x_m, p.y_m) - radius));
  return worst;
}

}  // namespace

TEST(Contours, OfAPlaneAreItsStraightLines) {
  const auto lines = isolines(sampled(plane, GridKind::Nodes, 7, 5).field(), 500);
  ASSERT_EQ(lines.size(), 1u);
  EXPECT_FALSE(lines[0].closed);
  for (const Place& p : lines[0].places) EXPECT_NEAR(plane(p.x_m, p.y_m), 500, 1e-9);
  // 250 x + 100 y = 200 runs from (0.8, 0) to (0.32, 1.2).
  EXPECT_NEAR(length(lines[0]), std::hypot(0.48, 1.2), 1e-9);
}

TEST(Contours, RunStraightOutThroughTheMarginOfCells) {
  const auto lines = isolines(sampled([](double x, double) { return 100 * x; }, GridKind::Cells, 4, 4).field(), 60);
  ASSERT_EQ(lines.size(), 1u);
  EXPECT_NEAR(length(lines[0]), 1.2, 1e-9) << "from wall to wall, though the outer stations stop short of them";
}

TEST(Contours, OfASaddleAreItsHyperbolas) {
  const Field field = sampled(saddle, GridKind::Nodes, 5, 5).field();
  const auto lines = isolines(field, 550, 16);
  ASSERT_EQ(lines.size(), 2u);
  for (const Isoline& line : lines) {
    EXPECT_FALSE(line.closed);
    for (const Place& p : line.places) EXPECT_NEAR((p.x_m - 0.6) * (p.y_m - 0.6), 0.125, 1e-12);
  }
}

TEST(Contours, AtASaddleInsideOneCellJoinWhatBelongsTogether) {
  const Field field = sampled(saddle, GridKind::Nodes, 2, 2).field();
  for (const auto& [level, product] : {std::pair{520.0, 0.05}, std::pair{480.0, -0.05}}) {
    const auto lines = isolines(field, level, 8);
    ASSERT_EQ(lines.size(), 2u);
    for (const Isoline& line : lines)
      for (const Place& p : line.places) EXPECT_NEAR((p.x_m - 0.6) * (p.y_m - 0.6), product, 1e-12);
  }
}

TEST(Contours, OfAConeAreCircles) {
  const double radius = 0.4;
  const auto lines = isolines(sampled(cone, GridKind::Nodes, 49, 49).field(), 1000 - 800 * radius);
  ASSERT_EQ(lines.size(), 1u);
  EXPECT_TRUE(lines[0].closed);
  EXPECT_EQ(lines[0].places.front().x_m, lines[0].places.back().x_m);
  EXPECT_LT(off_circle(lines[0], radius), 0.0005);
  EXPECT_NEAR(length(lines[0]), 2 * pi * radius, 0.003);
}

TEST(Contours, OfAGaussianCloseInWithTheSquareOfTheSpacing) {
  const double radius = 0.35, level = gaussian(0.6 + radius, 0.6);
  const auto worst = [&](int side) {
    const auto lines = isolines(sampled(gaussian, GridKind::Nodes, side, side).field(), level);
    EXPECT_EQ(lines.size(), 1u);
    return off_circle(lines.at(0), radius);
  };
  const double coarse = worst(13), fine = worst(25);
  EXPECT_LT(coarse, 0.01);
  EXPECT_GT(coarse / fine, 3);
  EXPECT_LT(coarse / fine, 6);
}

TEST(Contours, EndWhereNothingWasRead) {
  Sampled s = sampled(cone, GridKind::Nodes, 13, 13);
  s.ppfd[s.layout.index(10, 6)] = unread;
  const auto lines = isolines(s.field(), 1000 - 800 * 0.4);
  ASSERT_EQ(lines.size(), 1u);
  EXPECT_FALSE(lines[0].closed);
}

TEST(Contours, OfLevelsOutsideTheLightAreNone) {
  const Field field = sampled(gaussian, GridKind::Cells, 12, 12).field();
  EXPECT_TRUE(isolines(field, 2000).empty());
  EXPECT_TRUE(isolines(field, -5).empty());
  const Layout loose = lay_out(square, {GridKind::Spots, 0, 0, 0, 0, {{"a", 0.2, 0.3}, {"b", 0.7, 0.9}}}).value();
  EXPECT_TRUE(isolines(Field(loose, std::vector<double>{100, 300}), 200).empty());
}

TEST(Cuts, AlongAPlaneRiseEvenly) {
  const Field field = sampled(plane, GridKind::Nodes, 4, 9).field();
  const Cut c = cut(field, {0, 0.3}, {1.2, 0.9});
  EXPECT_NEAR(c.length_m, std::hypot(1.2, 0.6), 1e-12);
  for (const CutPoint& p : c.points) EXPECT_NEAR(p.ppfd, plane(p.place.x_m, p.place.y_m), 1e-9);
  EXPECT_NEAR(c.mean_ppfd, plane(0.6, 0.6), 1e-9);
  EXPECT_NEAR(c.lowest.ppfd, plane(0, 0.3), 1e-9);
  EXPECT_NEAR(c.highest.along_m, c.length_m, 1e-12);
  EXPECT_NEAR(c.known_share, 1, 1e-12);
}

TEST(Cuts, MeanOfASaddleIsExactHoweverCoarseTheGrid) {
  for (const int side : {2, 3, 7}) {
    const Cut c = cut(sampled(saddle, GridKind::Nodes, side, side).field(), {0, 0}, {1.2, 1.2}, 0.5);
    // Along the diagonal (x − 0.6)² has the mean 0.6² / 3.
    EXPECT_NEAR(c.mean_ppfd, 500 + 400 * 0.12, 1e-9);
  }
}

TEST(Cuts, ThroughAGaussianFollowIt) {
  const Cut c = cut(sampled(gaussian, GridKind::Nodes, 49, 49).field(), {0, 0.6}, {1.2, 0.6});
  for (const CutPoint& p : c.points) EXPECT_NEAR(p.ppfd, gaussian(p.place.x_m, 0.6), 0.5);
  // The mean of exp(−x²/2s²) over ± 0.6 is s √(2π) erf(0.6/(s√2)) / 1.2.
  const double exact = 900 * gaussian_width * std::sqrt(2 * pi) * std::erf(0.6 / (gaussian_width * std::sqrt(2))) / 1.2;
  EXPECT_NEAR(c.mean_ppfd, exact, 0.3);
  EXPECT_NEAR(c.highest.along_m, 0.6, 1e-9);
}

TEST(Cuts, EndAtTheMeasuredArea) {
  const Field field = sampled(plane, GridKind::Inset, 6, 6).field();
  const Cut c = cut(field, {-1, 0.6}, {3, 0.6});
  EXPECT_NEAR(c.from.x_m, 0.05, 1e-12);
  EXPECT_NEAR(c.to.x_m, 1.15, 1e-12);
  EXPECT_TRUE(cut(field, {2, 2}, {3, 2}).points.empty());
  EXPECT_TRUE(cut(field, {0.5, 0.5}, {0.5, 0.5}).points.empty());
}

TEST(Cuts, SayHowMuchOfThemIsKnown) {
  Sampled s = sampled(plane, GridKind::Nodes, 5, 5);
  for (int row = 0; row < 5; ++row) s.ppfd[s.layout.index(4, row)] = unread;
  const Cut c = cut(s.field(), {0, 0.6}, {1.2, 0.6});
  EXPECT_NEAR(c.known_share, 0.75, 0.01);
  EXPECT_NEAR(c.mean_ppfd, plane(0.45, 0.6), 1);
  EXPECT_FALSE(std::isnan(c.lowest.ppfd));
}

TEST(RingsOfKnownLight, AreItsExactMeans) {
  // Over a centered ring both a plane and a saddle average to their middle.
  for (const Light& light : {Light(plane), Light(saddle)}) {
    const Sampled s = sampled(light, GridKind::Cells, 12, 12);
    for (const Ring& ring : rings(s.layout, s.ppfd)) EXPECT_NEAR(ring.mean_ppfd, light(0.6, 0.6), 1e-9);
  }
  const Light pyramid = [](double x, double y) { return 1000 - 500 * std::max(std::abs(x - 0.6), std::abs(y - 0.6)); };
  const Sampled s = sampled(pyramid, GridKind::Cells, 12, 12);
  const auto found = rings(s.layout, s.ppfd);
  for (std::size_t i = 0; i < found.size(); ++i)
    EXPECT_NEAR(found[i].mean_ppfd, 1000 - 500 * (0.55 - 0.1 * static_cast<double>(i)), 1e-9);
}

TEST(CoverageOfKnownLight, OfAConeIsItsDisc) {
  const double radius = 0.45, cell = 0.01;
  const Coverage c = coverage(sampled(cone, GridKind::Nodes, 49, 49).field().raster(), {1000 - 800 * radius, 2000});
  EXPECT_NEAR(c.in_band_m2, pi * radius * radius, 0.003);
  EXPECT_NEAR(c.largest_centered_circle_m, 2 * radius, 2 * cell);
  // The largest rectangle in a disc is the square of side r √2.
  EXPECT_NEAR(c.largest_rectangle.area_m2(), 2 * radius * radius, 0.02);
  EXPECT_NEAR(c.largest_centered_rectangle.width_m, radius * std::sqrt(2), 4 * cell);
  EXPECT_NEAR(c.too_dim_share, 1 - c.in_band_share, 1e-12);
}

TEST(CoverageOfKnownLight, OfAPlaneIsItsStrip) {
  const Light ramp = [](double x, double) { return 1000 * x; };
  const Coverage c = coverage(sampled(ramp, GridKind::Nodes, 5, 5).field().raster(), {300, 900});
  EXPECT_NEAR(c.in_band_share, 0.5, 1e-12);
  EXPECT_NEAR(c.too_dim_share, 0.25, 1e-12);
  EXPECT_NEAR(c.too_bright_share, 0.25, 1e-12);
  EXPECT_NEAR(c.largest_rectangle.left_m, 0.3, 1e-9);
  EXPECT_NEAR(c.largest_rectangle.width_m, 0.6, 1e-9);
  EXPECT_NEAR(c.largest_rectangle.depth_m, 1.2, 1e-9);
  EXPECT_NEAR(c.largest_centered_circle_m, 0.6, 1e-9);
}

TEST(CoverageOfKnownLight, OfASaddleIsTwoQuarters) {
  const Coverage c = coverage(sampled(saddle, GridKind::Nodes, 3, 3).field().raster(), {500, 2000});
  EXPECT_NEAR(c.in_band_share, 0.5, 1e-12);
  EXPECT_NEAR(c.largest_rectangle.width_m, 0.6, 1e-9);
  EXPECT_NEAR(c.largest_rectangle.depth_m, 0.6, 1e-9);
  EXPECT_EQ(c.largest_centered_rectangle.area_m2(), 0);
}

TEST(CoverageOfKnownLight, AreaCurveOfAGaussian) {
  const AreaCurve curve(sampled(gaussian, GridKind::Nodes, 97, 97).field().raster());
  for (const double level : {450.0, 600.0, 800.0})  // their discs lie inside the bench
    EXPECT_NEAR(curve.area_m2_at_or_above(level), 2 * pi * gaussian_width * gaussian_width * std::log(900 / level),
                0.004);
}
