#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>
#include <cmath>

#include "core/figures/sweep_figures.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/room_light.h"
#include "core/square_bench.h"
#include "core/sweep/difference.h"
#include "core/sweep/reduction.h"

using namespace sunbreak;

namespace {

template <typename Light>
std::vector<double> read(const Layout& layout, Light light) {
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) ppfd.push_back(light(s.x_m, s.y_m));
  return ppfd;
}

SweepFigures figures(const Layout& layout, const std::vector<double>& ppfd) {
  return *sweep_figures(layout, ppfd, {std::nullopt, 12, std::nullopt, {}});
}

}  // namespace

TEST(Reduction, OfAPlaneIsThePlaneOnTheCoarserGrid) {
  const auto plane = [](double x, double y) { return 200 + 300 * x - 50 * y; };
  const Layout fine = cells(48, 48);
  const Reduced r = reduce(fine, read(fine, plane), 8, 6).value();
  ASSERT_EQ(r.ppfd.size(), 48u);
  for (std::size_t i = 0; i < r.ppfd.size(); ++i)
    EXPECT_NEAR(r.ppfd[i], plane(r.layout.stations[i].x_m, r.layout.stations[i].y_m), 1e-9);
}

TEST(Reduction, SharesAReadingThatLiesInTwoCells) {
  // Three columns into two: the middle one counts half in each.
  const Layout fine = cells(3, 1);
  const Reduced r = reduce(fine, std::vector<double>{100, 200, 400}, 2, 1).value();
  EXPECT_NEAR(r.ppfd[0], (100 + 0.5 * 200) / 1.5, 1e-9);
  EXPECT_NEAR(r.ppfd[1], (400 + 0.5 * 200) / 1.5, 1e-9);
}

RC_GTEST_PROP(Reduction, KeepsTheMean, ()) {
  const int columns = *rc::gen::inRange(2, 20), rows = *rc::gen::inRange(2, 20);
  const Layout fine = cells(columns, rows);
  std::vector<double> ppfd;
  for (std::size_t i = 0; i < fine.stations.size(); ++i) ppfd.push_back(*rc::gen::inRange(1, 2000));
  const Reduced r = reduce(fine, ppfd, *rc::gen::inRange(1, columns + 1), *rc::gen::inRange(1, rows + 1)).value();
  RC_ASSERT(std::abs(figures(r.layout, r.ppfd).mean_ppfd - figures(fine, ppfd).mean_ppfd) < 1e-6);
}

TEST(Reduction, InventsNothingWhereLittleWasRead) {
  const Layout fine = cells(4, 4);
  std::vector<double> ppfd(16, 300);
  for (const int i : {0, 1, 4}) ppfd[i] = unread;
  ppfd[2] = unread;
  const Reduced r = reduce(fine, ppfd, 2, 2).value();
  EXPECT_TRUE(std::isnan(r.ppfd[0])) << "one in four read";
  EXPECT_NEAR(r.ppfd[1], 300, 1e-9) << "three in four read";
}

TEST(Reduction, OfAnInsetGridHoldsForItsOwnArea) {
  const Layout fine = lay_out(square, {GridKind::Inset, 13, 13, 0.1, 0.1, {}}).value();
  const Reduced r = reduce(fine, std::vector<double>(169, 250), 5, 5).value();
  EXPECT_NEAR(r.layout.measured.left_m, 0.1, 1e-12);
  EXPECT_NEAR(r.layout.stations[0].x_m, 0.2, 1e-12);
  for (const double ppfd : r.ppfd) EXPECT_NEAR(ppfd, 250, 1e-9);
}

TEST(Reduction, RefusesWhatItCannotAverage) {
  const Layout coarse = cells(4, 4);
  const std::vector<double> ppfd(16, 300);
  EXPECT_FALSE(reduce(coarse, ppfd, 8, 8));
  EXPECT_FALSE(reduce(coarse, ppfd, 0, 2));
  const Layout spots = lay_out(square, {GridKind::Spots, 0, 0, 0, 0, {{"a", 0.2, 0.3}, {"b", 0.7, 0.9}}}).value();
  const auto refused = reduce(spots, std::vector<double>{1, 2}, 1, 1);
  ASSERT_FALSE(refused);
  EXPECT_NE(refused.problem().sentence().find("spot check"), std::string::npos);
}

/// The same lamp walked on 8 × 8 and on 48 × 48 stations.
TEST(Reduction, MakesEvennessOfUnlikeGridsAgree) {
  const RoomLight room({1.2, 1.2, 2.0, {0.8, 0.8, 0.8, 0.8, 0.7, 0.25}});
  for (const double height_m : {0.35, 0.5, 0.7}) {
    const auto lamp = placed(bars(6, 1.0, 1.0, 18, 900), {0.61, 0.6, height_m});
    const auto walked = [&](const Layout& layout) {
      std::vector<Vec3> places;
      for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
      const Prediction p = room.predict_once(lamp, places);
      std::vector<double> ppfd;
      for (std::size_t i = 0; i < places.size(); ++i) ppfd.push_back(p.direct[i] + p.reflected[i]);
      return ppfd;
    };
    const Layout coarse = cells(8, 8), dense = cells(48, 48);
    const std::vector<double> dense_ppfd = walked(dense);
    const Reduced reduced = reduce(dense, dense_ppfd, 8, 8).value();
    const Evenness of_coarse = figures(coarse, walked(coarse)).evenness, naive = figures(dense, dense_ppfd).evenness,
                   fair = figures(reduced.layout, reduced.ppfd).evenness;
    EXPECT_NEAR(fair.lowest_over_mean / of_coarse.lowest_over_mean, 1, 0.02) << height_m;
    EXPECT_NEAR(fair.lowest_over_highest / of_coarse.lowest_over_highest, 1, 0.02) << height_m;
    EXPECT_LT(naive.lowest_over_mean / of_coarse.lowest_over_mean, 0.95) << height_m << ": extremes differ by density";
  }
}

TEST(Difference, IsByStationOnTheSameLattice) {
  const Layout layout = cells(3, 3);
  std::vector<double> a(9, 500), b(9, 450);
  b[4] = unread;
  const auto d = difference(layout, a, layout, b);
  EXPECT_DOUBLE_EQ(d[0], 50);
  EXPECT_TRUE(std::isnan(d[4]));
  EXPECT_DOUBLE_EQ(d[5], 50) << "an unread neighbor does not matter";
}

TEST(Difference, GoesByTheFieldOnUnlikeGrids) {
  const auto plane = [](double x, double y) { return 200 + 300 * x - 50 * y; };
  const Layout layout = cells(5, 5), other = lay_out(square, {GridKind::Inset, 9, 9, 0.15, 0.15, {}}).value();
  std::vector<double> ppfd = read(layout, plane);
  for (double& e : ppfd) e += 7;
  const auto d = difference(layout, ppfd, other, read(other, plane));
  EXPECT_TRUE(std::isnan(d[0])) << "the corner lies outside the other's measured area";
  EXPECT_NEAR(d[12], 7, 1e-9);
  EXPECT_NEAR(d[6], 7, 1e-9);
}
