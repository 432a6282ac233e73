#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "core/figures/figure_table.h"
#include "core/sweep/field.h"
#include "core/uncertainty/budget.h"
#include "core/uncertainty/budget_words.h"
#include "core/uncertainty/grid_sampling.h"
#include "core/uncertainty/height_slope.h"
#include "core/uncertainty/observed_terms.h"
#include "core/uncertainty/repeatability.h"
#include "core/uncertainty/station_slopes.h"
#include "core/uncertainty/symmetric_light.h"

using namespace sunbreak;

namespace {

Layout lattice(GridKind kind, int columns, int rows) {
  return lay_out({1.2, 1.2}, {kind, columns, rows, 0.05, 0.05, {}}).value();
}

/// A dome of light, even about both middle lines.
std::vector<double> dome(const Layout& layout, double off_x = 0) {
  std::vector<double> ppfd;
  for (const Station& s : layout.stations)
    ppfd.push_back(800 * std::exp(-0.8 * (std::pow(s.x_m - 0.6 - off_x, 2) + std::pow(s.y_m - 0.6, 2))));
  return ppfd;
}

/// Nothing unsure but what a test sets.
BudgetQuestion sure(const Layout& layout, const std::vector<double>& ppfd) {
  BudgetQuestion q;
  q.layout = &layout;
  q.ppfd = ppfd;
  q.context.power_w = 300;
  for (InputQuantity* t : {&q.calibration, &q.spectral, &q.cosine, &q.repeatability, &q.height_m, &q.position_m,
                           &q.drift, &q.power, &q.edge_m})
    t->value = 0;
  return q;
}

const Contribution& part(const Budget& b, std::string_view id) {
  return *std::find_if(b.contributions.begin(), b.contributions.end(), [&](auto& c) { return c.id == id; });
}
double standard(const Budget& b, std::string_view contribution, std::string_view figure) {
  return part(b, contribution).standard[figure_index(figure)];
}

}  // namespace

TEST(Budget, CalibrationScalesLightAndLeavesRatiosAlone) {
  const Layout layout = lattice(GridKind::Cells, 6, 6);
  const auto ppfd = dome(layout);
  BudgetQuestion q = sure(layout, ppfd);
  q.calibration.value = 0.02;
  const Budget b = uncertainty_budget(q);
  const double mean = b.values[figure_index("mean_ppfd")];
  EXPECT_NEAR(standard(b, "calibration", "mean_ppfd"), 0.02 * mean, 1e-9);
  EXPECT_NEAR(standard(b, "calibration", "lowest_over_mean"), 0, 1e-12);
  EXPECT_NEAR(standard(b, "calibration", "left_right_pct"), 0, 1e-9);
  EXPECT_NEAR(standard(b, "calibration", "ppf_umol_s"), 0.02 * mean * 1.44, 1e-9);
  EXPECT_STREQ(std::string(b.largest("mean_ppfd")->id).c_str(), "calibration");
}

TEST(Budget, NoiseOfTheMeanFallsWithTheRootOfTheStations) {
  const Layout layout = lattice(GridKind::Cells, 12, 12);
  const std::vector<double> ppfd(144, 500);
  BudgetQuestion q = sure(layout, ppfd);
  q.repeatability.value = 0.012;
  const Budget b = uncertainty_budget(q);
  EXPECT_NEAR(standard(b, "repeatability", "mean_ppfd"), 500 * 0.012 / 12, 0.12 * 0.5);
  // The lowest of 144 equal stations lies about 2.6 deviations low: that is told as a pull, not hidden in the spread.
  EXPECT_NEAR(b.bias[figure_index("lowest_ppfd")] / (500 * 0.012), -2.6, 0.15);
  EXPECT_GT(b.expanded("lowest_ppfd"), 2.4 * 500 * 0.012);
}

TEST(Budget, HeightActsThroughTheSlope) {
  const Layout layout = lattice(GridKind::Cells, 6, 6);
  const auto ppfd = dome(layout);
  BudgetQuestion q = sure(layout, ppfd);
  q.height_m.value = 0.004;
  q.slope_per_m.assign(36, -1.5);
  const Budget b = uncertainty_budget(q);
  EXPECT_NEAR(standard(b, "height", "mean_ppfd") / b.values[figure_index("mean_ppfd")], 0.006, 1e-9);
  EXPECT_NEAR(standard(b, "height", "lowest_over_mean"), 0, 1e-12) << "all stations alike";
}

TEST(Budget, WattsAndEdgesActOnWhatTheyAreIn) {
  const Layout layout = lattice(GridKind::Cells, 6, 6);
  const auto ppfd = dome(layout);
  BudgetQuestion q = sure(layout, ppfd);
  q.power.value = 0.01;
  q.edge_m.value = 0.006;
  const Budget b = uncertainty_budget(q);
  const double efficacy = b.values[figure_index("canopy_efficacy_umol_j")];
  EXPECT_NEAR(standard(b, "power", "canopy_efficacy_umol_j") / efficacy, 0.01, 1e-5);
  EXPECT_NEAR(standard(b, "edges", "canopy_efficacy_umol_j") / efficacy, 0.005 * std::sqrt(2), 1e-9);
  EXPECT_EQ(standard(b, "power", "mean_ppfd"), 0);
  EXPECT_EQ(standard(b, "edges", "mean_ppfd"), 0);
  EXPECT_NEAR(b.standard[figure_index("canopy_efficacy_umol_j")],
              std::hypot(standard(b, "power", "canopy_efficacy_umol_j"), standard(b, "edges", "canopy_efficacy_umol_j"),
                         standard(b, "grid", "canopy_efficacy_umol_j")),
              1e-12);
}

TEST(Budget, DriftTiltsTheWalk) {
  const Layout layout = lattice(GridKind::Cells, 6, 6);
  const std::vector<double> ppfd(36, 400);
  BudgetQuestion q = sure(layout, ppfd);
  q.drift.value = 0.01;
  for (int i = 0; i < 36; ++i) q.walked.push_back(i / 35.0);
  EXPECT_NEAR(standard(uncertainty_budget(q), "drift", "mean_ppfd"), 400 * 0.005, 1e-9) << "half of it on average";
}

TEST(Budget, IsTheSameEachTime) {
  const Layout layout = lattice(GridKind::Cells, 8, 8);
  const auto ppfd = dome(layout);
  BudgetQuestion q;
  q.layout = &layout;
  q.ppfd = ppfd;
  EXPECT_EQ(uncertainty_budget(q).standard, uncertainty_budget(q).standard);
  EXPECT_TRUE(std::isnan(uncertainty_budget(q).expanded("canopy_efficacy_umol_j"))) << "no watts";
}

TEST(Budget, CoverageIsUnsureWhereTheLightMeetsTheBand) {
  const Layout layout = lattice(GridKind::Cells, 8, 8);
  const auto ppfd = dome(layout);
  BudgetQuestion q = sure(layout, ppfd);
  q.calibration.value = 0.025;
  q.context.target = Band{100, 2000};
  EXPECT_EQ(standard(uncertainty_budget(q), "calibration", "coverage"), 0) << "far inside";
  q.context.target = Band{650, 2000};
  EXPECT_GT(standard(uncertainty_budget(q), "calibration", "coverage"), 0.02);
}

TEST(Budget, OfARatioLeavesOutWhatIsShared) {
  const Layout layout = lattice(GridKind::Cells, 8, 8);
  const auto ppfd = dome(layout);
  BudgetQuestion q = sure(layout, ppfd);
  q.calibration.value = 0.03;
  q.height_m.value = 0.005;
  q.slope_per_m.assign(64, -2);
  const Budget b = uncertainty_budget(q);
  EXPECT_GT(b.relative("mean_ppfd"), 0.06);
  EXPECT_NEAR(ratio_uncertainty(b, b, "mean_ppfd"), 2 * 0.01 * std::sqrt(2), 1e-9);
}

TEST(Repeatability, PoolsStationsAndWeighsFewAgainstTheUsual) {
  // Deviations of ± 1 % and ± 2 % about their stations' means: squares 2e-4 and 8e-4, one degree of freedom each.
  const std::vector<RepeatedStation> two{{{99, 101}}, {{392, 408}}};
  const auto r = repeatability(two, 0.01);
  ASSERT_TRUE(r);
  EXPECT_EQ(r->degrees_of_freedom, 2);
  EXPECT_NEAR(r->relative_sd, std::sqrt((2e-4 + 8e-4 + 4 * 1e-4) / 6), 1e-9);
  EXPECT_FALSE(repeatability(std::vector<RepeatedStation>{{{100}}}, 0.01));
}

TEST(ObservedTerms, FindTheNoiseOfRepeats) {
  const Layout layout = lattice(GridKind::Cells, 8, 8);
  const std::vector<double> flat(64, 500);
  std::mt19937_64 random(5);
  std::normal_distribution<double> noise(0, 0.02);
  std::vector<Repeats> repeats;
  for (int i = 0; i < 64; ++i) repeats.push_back({i, {{500 * (1 + noise(random)), 500 * (1 + noise(random))}}});
  const InputQuantity t = repeatability_term(layout, flat, expected_light(layout, flat), repeats, 0.005);
  EXPECT_EQ(t.origin, Origin::Measured);
  EXPECT_NEAR(t.value, 0.02, 0.003);
  const InputQuantity without = repeatability_term(lattice(GridKind::Cells, 3, 3), std::vector<double>(9, 400),
                                                   {std::vector<double>(9, 400), unread}, {}, 0.005);
  EXPECT_EQ(without.origin, Origin::Assumed);
}

TEST(ObservedTerms, OfDriftSayWhatTheReferenceLeaves) {
  EXPECT_EQ(drift_term(Drift(), 0.01).origin, Origin::Assumed);
  const Drift scaled({{0, 500, 0.002}, {600, 470, 0.002}});
  ASSERT_TRUE(scaled.significant());
  EXPECT_NEAR(drift_term(scaled, 0.002).value, 0.002 * std::sqrt(2), 1e-12);
  const Drift quiet({{0, 500, 0.01}, {600, 501, 0.01}});
  EXPECT_LT(drift_term(quiet, 0.01).value, 0.006);
  EXPECT_GT(drift_term(quiet, 0.01).value, 0.003);
}

TEST(HeightSlope, OfAnExponentialIsExact) {
  const auto at = [](double h) { return RungLight{h, {1000 * std::exp(-1.7 * h), 300 * std::exp(-0.4 * h)}}; };
  const std::vector<RungLight> three{at(0.3), at(0.45), at(0.75)};
  for (const double h : {0.3, 0.45, 0.75}) {
    const auto slope = height_slope(three, h);
    ASSERT_EQ(slope.size(), 2u);
    EXPECT_NEAR(slope[0], -1.7, 1e-9);
    EXPECT_NEAR(slope[1], -0.4, 1e-9);
  }
  EXPECT_TRUE(height_slope(std::vector<RungLight>{at(0.3)}, 0.3).empty());
  EXPECT_TRUE(height_slope(three, 0.5).empty());
}

TEST(HeightSlope, InTheMiddleFollowsAParabola) {
  const auto at = [](double h) { return RungLight{h, {std::exp(5 - 2 * h + 3 * h * h)}}; };
  const std::vector<RungLight> uneven{at(0.2), at(0.5), at(0.6)};
  EXPECT_NEAR(height_slope(uneven, 0.5)[0], -2 + 6 * 0.5, 1e-9);
}

TEST(GridSampling, HalfGridsPartTheReadings) {
  const Layout layout = lattice(GridKind::Cells, 4, 4);
  std::vector<double> board;
  for (const Station& s : layout.stations) board.push_back((s.column + s.row) % 2 == 0 ? 440 : 360);
  const HalfGrids halves = half_grids(layout, board);
  EXPECT_EQ(std::count_if(halves.first.begin(), halves.first.end(), [](double e) { return e == 440; }), 8);
  EXPECT_EQ(std::count_if(halves.second.begin(), halves.second.end(), [](double e) { return std::isnan(e); }), 8);
  for (const double e : filled(layout, halves.first)) EXPECT_DOUBLE_EQ(e, 440);
  BudgetQuestion q = sure(layout, board);
  EXPECT_NEAR(standard(uncertainty_budget(q), "grid", "mean_ppfd"), 40, 1e-9) << "full less half";
}

TEST(GridSampling, TheEdgeTermOfAParabolaIsExact) {
  const auto parabola = [](const Layout& layout) {
    std::vector<double> ppfd;
    for (const Station& s : layout.stations) ppfd.push_back(100 + 80 * s.x_m * s.x_m);
    return ppfd;
  };
  const double exact = 100 + 80 * 1.44 / 3;
  for (const auto& [kind, side] : {std::pair{GridKind::Cells, 6}, std::pair{GridKind::Nodes, 7}}) {
    const Layout layout = lattice(kind, side, side);
    const auto ppfd = parabola(layout);
    double mean = 0, plain = 0;
    for (std::size_t i = 0; i < ppfd.size(); ++i)
      mean += ppfd[i] * layout.stations[i].weight, plain += ppfd[i] / static_cast<double>(ppfd.size());
    EXPECT_NEAR(edge_term(layout, ppfd) * plain, exact - mean, 1e-9);
  }
  EXPECT_EQ(edge_term(lattice(GridKind::Cells, 2, 2), std::vector<double>(4, 5)), 0);
}

TEST(StationSlopes, AreExactForAParabola) {
  const Layout layout = lattice(GridKind::Cells, 5, 4);
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) ppfd.push_back(300 + 200 * s.x_m * s.x_m - 90 * s.y_m);
  const auto slopes = station_slopes(layout, ppfd);
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    EXPECT_NEAR(slopes[i].x, 400 * layout.stations[i].x_m, 1e-8);
    EXPECT_NEAR(slopes[i].y, -90, 1e-8);
  }
}

TEST(SymmetricLight, MakesMirrorImagesAlikeAgain) {
  const Layout layout = lattice(GridKind::Cells, 12, 12);
  std::mt19937_64 random(7);
  std::normal_distribution<double> noise(0, 0.01);
  std::vector<double> truth = dome(layout, 0.01), ppfd;
  for (const double e : truth) ppfd.push_back(e * (1 + noise(random)));
  const auto light = symmetric_light(layout, ppfd, std::vector<double>(144, 0.01));
  ASSERT_TRUE(light);
  double raw = 0, left = 0;
  for (std::size_t i = 0; i < truth.size(); ++i) {
    raw += std::pow(ppfd[i] / truth[i] - 1, 2);
    left += std::pow((*light)[i] / truth[i] - 1, 2);
  }
  EXPECT_LT(std::sqrt(left / 144), 0.7 * std::sqrt(raw / 144));
  EXPECT_NEAR((*light)[0] / truth[0] * truth[11] / (*light)[11], 1, 0.006) << "corners stand to each other as they do";
}

TEST(SymmetricLight, DeclinesWhatIsNotSymmetric) {
  const Layout layout = lattice(GridKind::Cells, 12, 12);
  std::vector<double> ppfd = dome(layout);
  for (const Station& s : layout.stations)
    if (s.column < 4 && s.row < 4) ppfd[layout.index(s.column, s.row)] *= 1.2;
  EXPECT_FALSE(symmetric_light(layout, ppfd, std::vector<double>(144, 0.01)));
  std::vector<double> half = dome(layout);
  std::fill(half.begin(), half.begin() + 30, unread);
  EXPECT_FALSE(symmetric_light(layout, half, std::vector<double>(144, 0.01)));
}

TEST(BudgetWords, SaySizeShareAndOrigin) {
  const Contribution height{"height", "Height", {0.005, Origin::Stated, "stated"}, true, false, {}};
  EXPECT_EQ(size_words(height, UnitSystem::Metric), "5.0 mm");
  EXPECT_EQ(size_words(height, UnitSystem::Imperial), "0.20 in");
  EXPECT_EQ(size_words({"x", "X", {0.025}, false, false, {}}, UnitSystem::Imperial), "2.50 %");
  EXPECT_EQ(size_words({"grid", "Grid", {0}, false, false, {}}, UnitSystem::Metric), "");
  EXPECT_EQ(origin_words({0.01, Origin::Assumed, "usual"}), "assumed: usual");
  EXPECT_EQ(origin_words({0.01, Origin::Stated, "stated for QS"}), "stated for QS");
  EXPECT_EQ(share_words(-3, 200), "1.50 %");
  EXPECT_EQ(share_words(3, 0), "–");
}
