#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <random>

#include "core/figures/figure_table.h"
#include "core/sweep/field.h"
#include "core/sweep/reduction.h"
#include "core/uncertainty/budget.h"
#include "core/uncertainty/budget_words.h"
#include "core/uncertainty/grid_sampling.h"
#include "core/uncertainty/height_slope.h"
#include "core/uncertainty/observed_terms.h"
#include "core/uncertainty/station_slopes.h"
#include "core/uncertainty/symmetric_light.h"
#include "core/uncertainty/unread_light.h"

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

/// 500 µmol/m²/s whatever the place, with 2 % of noise, and read again at some stations.
struct NoisyFlat {
  Layout layout;
  std::vector<double> ppfd;
  std::vector<Repeats> repeats;
  NoisyFlat(int side, int again, double noise_sd) : layout(lattice(GridKind::Cells, side, side)) {
    std::mt19937_64 random(5);
    std::normal_distribution<double> noise(0, noise_sd);
    for (std::size_t i = 0; i < layout.stations.size(); ++i) ppfd.push_back(500 * (1 + noise(random)));
    for (int i = 0; i < again; ++i)
      repeats.push_back({i, {ppfd[static_cast<std::size_t>(i)], 500 * (1 + noise(random))}});
  }
  ObservedScatter found() const { return observed_scatter(layout, expected_light(layout, ppfd), repeats, {0.005}); }
};

TEST(ObservedTerms, FindTheNoiseOfRepeatsAndOfAllReadings) {
  const NoisyFlat many(8, 64, 0.02), none(12, 0, 0.006), quiet(12, 0, 0.001);
  EXPECT_EQ(many.found().repeatability.origin, Origin::Measured);
  EXPECT_NEAR(many.found().repeatability.value, 0.02, 0.003);
  EXPECT_GT(many.found().repeatability.freedom, 60);
  EXPECT_NEAR(none.found().repeatability.value, 0.006, 0.001) << "144 readings outweigh what is usual";
  EXPECT_LT(quiet.found().repeatability.value, 0.0015);
  EXPECT_EQ(none.found().position_m.origin, Origin::Assumed) << "flat light tells nothing of places";
  EXPECT_EQ(none.found().position_m.value, 0.005);
}

TEST(ObservedTerms, OneRepeatThatShowsNoDifferenceRaisesNothing) {
  NoisyFlat sweep(12, 0, 0.003);
  const double without = sweep.found().repeatability.value;
  sweep.repeats.push_back({70, {sweep.ppfd[70], sweep.ppfd[70]}});
  EXPECT_LE(sweep.found().repeatability.value, without);
  NoisyFlat two_by_two(2, 0, 0.003);
  EXPECT_EQ(two_by_two.found().repeatability.origin, Origin::Assumed);
  EXPECT_NEAR(two_by_two.found().repeatability.freedom, 4, 1e-9);
  two_by_two.repeats.push_back({0, {500, 500}});
  EXPECT_LT(two_by_two.found().repeatability.value, 0.01);
  EXPECT_GT(two_by_two.found().repeatability.value, 0.006) << "one repeat turns nothing over";
}

/// Light that falls steeply to one side: what places make of it is told from noise by the stations where it is flat.
TEST(ObservedTerms, TellPlacesFromNoise) {
  const Layout layout = lattice(GridKind::Cells, 14, 14);
  std::mt19937_64 random(11);
  std::normal_distribution<double> normal;
  for (const double place_m : {0.0, 0.012}) {
    std::vector<double> ppfd;
    for (const Station& s : layout.stations) {
      const double x = s.x_m + place_m * normal(random);
      ppfd.push_back(900 * std::exp(-3 * x * x) * (1 + 0.003 * normal(random)));
    }
    const ObservedScatter found = observed_scatter(layout, expected_light(layout, ppfd), {}, {0.005});
    EXPECT_NEAR(found.repeatability.value, 0.003, 0.004) << place_m;
    EXPECT_NEAR(found.position_m.value, place_m, place_m > 0 ? 0.003 : 0.002) << place_m;
    const InputQuantity stated{0.005, Origin::Stated, "stated"};
    EXPECT_EQ(observed_scatter(layout, expected_light(layout, ppfd), {}, stated).position_m.value, 0.005);
  }
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

/// Light that is alike at all stations, so that only the height counts.
std::vector<double> slopes_of(const std::function<double(double)>& light, const std::vector<double>& heights_m,
                              double at_m) {
  const Layout layout = lattice(GridKind::Cells, 3, 3);
  std::vector<RungLight> rungs;
  for (const double h : heights_m) rungs.push_back({h, std::vector<double>(9, light(h))});
  return height_slope(layout, rungs, at_m);
}

TEST(HeightSlope, OfAPowerThatChangesIsExactFromThreeRungs) {
  const auto light = [](double h) { return std::exp(5 - 1.1 * std::log(h) - 0.4 * std::log(h) * std::log(h)); };
  for (const double h : {0.3, 0.45, 0.75})
    for (const double slope : slopes_of(light, {0.3, 0.45, 0.75}, h))
      EXPECT_NEAR(slope, (-1.1 - 0.8 * std::log(h)) / h, 1e-9) << "at the outer rungs, too";
  EXPECT_TRUE(slopes_of(light, {0.3}, 0.3).empty());
  EXPECT_TRUE(slopes_of(light, {0.3, 0.45}, 0.5).empty());
}

TEST(HeightSlope, OfAGlowingDiscIsExactFromTwoRungs) {
  const auto light = [](double h) { return 100 / (h * h + 0.36); };
  for (const double h : {0.3, 0.6})
    EXPECT_NEAR(slopes_of(light, {0.3, 0.6}, h)[0], -2 * h / (h * h + 0.36), 0.04 * 2 * h / (h * h + 0.36));
}

/// A small lamp without walls: E = h / (r² + h²)^1.5, told by the pattern at one height.
TEST(HeightSlope, ASmallLampsPatternGrowsWithTheHeight) {
  const Layout layout = lattice(GridKind::Cells, 12, 12);
  const double h = 0.5;
  std::vector<double> ppfd;
  for (const Station& s : layout.stations)
    ppfd.push_back(h / std::pow(std::pow(s.x_m - 0.6, 2) + std::pow(s.y_m - 0.6, 2) + h * h, 1.5));
  const std::vector<double> power = growing_power(layout, ppfd);
  const auto true_power = [&](std::size_t i) {
    const Station& s = layout.stations[i];
    const double r2 = std::pow(s.x_m - 0.6, 2) + std::pow(s.y_m - 0.6, 2);
    return 1 - 3 * h * h / (r2 + h * h);
  };
  const std::size_t corner = 0, middle = 5 * 12 + 5;
  EXPECT_NEAR(power[corner] - power[middle], true_power(corner) - true_power(middle), 0.05);
}

TEST(FigureTable, SaysWhichOfTheMiddleStationsACenterIsOf) {
  const Layout layout = lattice(GridKind::Cells, 4, 4);
  std::vector<double> ppfd(16, 500);
  const auto where = [&] {
    const SweepFigures f = *sweep_figures(layout, ppfd, {});
    return figure("centre_ppfd").where(FigureSource(layout, ppfd, f), UnitSystem::Metric);
  };
  EXPECT_EQ(where(), "");
  ppfd[5] = ppfd[10] = unread;
  EXPECT_EQ(where(), "2 of 4: front right, far left");
  ppfd[6] = unread;
  EXPECT_EQ(where(), "1 of 4: far left");
}

/// A dome of which a third was not read: its mean of what was read is off, and says so; the light that is likely there
/// is the dome's.
TEST(UnreadLight, IsToldByWhatWasRead) {
  const Layout layout = lattice(GridKind::Cells, 12, 12);
  const std::vector<double> whole = dome(layout);
  for (const bool broken_off : {true, false}) {
    std::vector<double> ppfd = whole;
    for (std::size_t i = 0; i < ppfd.size(); ++i) {
      const Station& s = layout.stations[i];
      if (broken_off ? s.row >= 8 : s.column + s.row >= 15) ppfd[i] = unread;
    }
    const UnreadLight light(layout, ppfd, std::vector<double>(144, 0.005));
    ASSERT_TRUE(light.exists());
    const std::vector<double> filled = light.filled();
    for (std::size_t i = 0; i < ppfd.size(); ++i) EXPECT_NEAR(filled[i] / whole[i], 1, 0.05) << i;
    BudgetQuestion q = sure(layout, ppfd);
    q.repeatability.value = 0.005;
    const Budget b = uncertainty_budget(q);
    for (const char* id : {"mean_ppfd", "lowest_ppfd", "lowest_over_mean", "canopy_efficacy_umol_j", "cv"}) {
      const auto k = static_cast<std::size_t>(figure_index(id));
      q.ppfd = whole;
      const double truth = uncertainty_budget(q).values[k];
      EXPECT_LE(std::abs(b.values[k] - truth), b.expanded(id)) << id;
      EXPECT_GT(part(b, "unread").standard[k], 0) << id;
      q.ppfd = ppfd;
    }
  }
  EXPECT_FALSE(UnreadLight(layout, whole, std::vector<double>(144, 0.005)).exists());
  EXPECT_FALSE(UnreadLight(layout, std::vector<double>(144, unread), std::vector<double>(144, 0.005)).exists());
}

/// Cells that are means of what was read in them stand for their whole area.
TEST(GridSampling, AveragesAreNoPointSamples) {
  const Layout fine = lattice(GridKind::Cells, 16, 16), coarse = lattice(GridKind::Cells, 4, 4);
  const std::vector<double> ppfd = dome(fine, 0.1);
  const auto averaged = reduce(fine, ppfd, 4, 4);
  ASSERT_TRUE(averaged);
  BudgetQuestion q = sure(fine, ppfd), less = sure(coarse, averaged.value().ppfd);
  less.averaged = sampling_of_mean(q);
  EXPECT_NEAR(uncertainty_budget(less).expanded("mean_ppfd"), uncertainty_budget(q).expanded("mean_ppfd"), 0.01);
  less.averaged.reset();
  EXPECT_GT(uncertainty_budget(less).expanded("mean_ppfd"), 5 * uncertainty_budget(q).expanded("mean_ppfd"));
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

TEST(StationSlopes, OfLightThatFallsBySharesAreExactInItsLogarithm) {
  const Layout layout = lattice(GridKind::Cells, 6, 6);
  std::vector<double> ppfd;
  for (const Station& s : layout.stations) ppfd.push_back(900 * std::exp(-3 * s.x_m * s.x_m));
  const auto slopes = relative_slopes(layout, ppfd);
  for (std::size_t i = 0; i < ppfd.size(); ++i) EXPECT_NEAR(slopes[i].x, -6 * layout.stations[i].x_m, 1e-8);
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
