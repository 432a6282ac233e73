#include "core/meters/lux_factor.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numeric>
#include <vector>

#include "core/linear/least_squares.h"
#include "core/meters/few_pairs.h"
#include "core/quantity/student.h"
#include "core/quantity/uncertain_text.h"
#include "core/spectrum/color.h"
#include "core/spectrum/spectral_mix.h"

namespace sunbreak {
namespace {

constexpr std::size_t fewest_pairs = 3, enough_pairs = 5;
constexpr double enough_span = 2, most_scatter = 0.10, test_chance = 0.01, beyond_range = 0.1;

/// The likelihoods of a dozen residuals hardly differ; taken to this power, the intervals of k hold what they say.
constexpr double sharpness = 3;

/// Shares of the scatter's variance that are alike at all levels, tried.
constexpr std::array<double, 9> level_shares{0, 0.003, 0.01, 0.03, 0.1, 0.25, 0.5, 0.8, 1};

using Row = std::vector<double>;

struct WeightedFit {
  Row coefficients;
  std::vector<Row> covariance;                                       ///< with the variance that the residuals show
  double log_likelihood = -std::numeric_limits<double>::infinity();  ///< restricted
  double freedom = 0;
};

/// y = X b with variances in proportion to `variance`; X row by row.
WeightedFit fit(const std::vector<Row>& x, const Row& y, const Row& variance) {
  const std::size_t unknowns = x.front().size();
  LeastSquares least(unknowns);
  for (std::size_t i = 0; i < x.size(); ++i) least.add(x[i], y[i], 1 / variance[i]);
  least.solve();
  WeightedFit f;
  f.coefficients = least.x();
  f.freedom = static_cast<double>(x.size() - unknowns);
  double squares = 0, logs = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    squares += std::pow(y[i] - least.at(x[i]), 2) / variance[i];
    logs += std::log(variance[i]);
  }
  const double s2 = std::max(squares / f.freedom, 1e-300);
  f.covariance.assign(unknowns, Row(unknowns));
  for (std::size_t r = 0; r < unknowns; ++r)
    for (std::size_t c = 0; c < unknowns; ++c) f.covariance[r][c] = s2 * least.inverse(r, c);
  f.log_likelihood = -0.5 * (f.freedom * std::log(s2) + logs + std::log(std::max(least.determinant(), 1e-300)));
  return f;
}

struct Columns {
  Row lux, ppfd;  ///< over their means

  /// What is fitted, row by row: `terms` of each pair's lux.
  template <typename Terms>
  std::vector<Row> rows(const Terms& terms) const {
    std::vector<Row> all;
    for (const double x : lux) all.push_back(terms(x));
    return all;
  }
};

Row variance_of(const Columns& data, double level_share) {
  Row variance;
  for (const double x : data.lux) variance.push_back((1 - level_share) * x * x + level_share);
  return variance;
}

/// How likely each of `level_shares` is, by what a curve with an intercept leaves: so that neither is taken for
/// scatter.
std::vector<double> chances_of_level_shares(const Columns& data) {
  std::vector<double> chances(level_shares.size(), 1);
  if (data.lux.size() >= 6) {
    const std::vector<Row> rows = data.rows([](double x) { return Row{1, x, x * x}; });
    for (std::size_t i = 0; i < chances.size(); ++i)
      chances[i] = fit(rows, data.ppfd, variance_of(data, level_shares[i])).log_likelihood;
    const double most = *std::max_element(chances.begin(), chances.end());
    for (double& chance : chances) chance = std::exp(sharpness * (chance - most));
  }
  const double sum = std::accumulate(chances.begin(), chances.end(), 0.0);
  for (double& chance : chances) chance /= sum;
  return chances;
}

/// The fits of all mixtures put together, each by its chance: what they differ by is part of the uncertainty.
WeightedFit fit_over_chances(const std::vector<Row>& x, const Columns& data, const std::vector<double>& chances) {
  WeightedFit all;
  const std::size_t unknowns = x.front().size();
  all.coefficients.assign(unknowns, 0);
  all.covariance.assign(unknowns, Row(unknowns, 0));
  std::vector<WeightedFit> fits;
  for (std::size_t i = 0; i < chances.size(); ++i) {
    fits.push_back(fit(x, data.ppfd, variance_of(data, level_shares[i])));
    for (std::size_t r = 0; r < unknowns; ++r) {
      all.coefficients[r] += chances[i] * fits[i].coefficients[r];
      for (std::size_t c = 0; c < unknowns; ++c) all.covariance[r][c] += chances[i] * fits[i].covariance[r][c];
    }
    all.freedom = std::max(1.0, fits[i].freedom - 1);  // one for the mixture
  }
  for (std::size_t i = 0; i < chances.size(); ++i)
    for (std::size_t r = 0; r < unknowns; ++r)
      for (std::size_t c = 0; c < unknowns; ++c)
        all.covariance[r][c] += chances[i] * (fits[i].coefficients[r] - all.coefficients[r]) *
                                (fits[i].coefficients[c] - all.coefficients[c]);
  return all;
}

}  // namespace

Result<LuxFactor> lux_factor(const std::vector<LuxPair>& pairs) {
  if (pairs.size() < fewest_pairs)
    return too_few_pairs(pairs.size(), "three are the fewest that show any scatter, five make a factor",
                         "read lux and PPFD at the same place at several levels");
  for (const LuxPair& pair : pairs)
    if (!(pair.lux > 0 && pair.ppfd > 0 && pair.lux < 1e7 && pair.ppfd < 1e5))
      return Problem{fmt::format("A pair is {:g} lx and {:g} µmol/m²/s", pair.lux, pair.ppfd),
                     "both have to be above zero and such as light can be", "take the pair out or read it again"};
  const std::size_t n = pairs.size();
  LuxFactor told;
  told.lowest_lux = told.highest_lux = pairs[0].lux;
  double mean_lux = 0, mean_ppfd = 0;
  for (const LuxPair& pair : pairs) {
    told.lowest_lux = std::min(told.lowest_lux, pair.lux);
    told.highest_lux = std::max(told.highest_lux, pair.lux);
    mean_lux += pair.lux / static_cast<double>(n);
    mean_ppfd += pair.ppfd / static_cast<double>(n);
  }
  Columns data;
  for (const LuxPair& pair : pairs) {
    data.lux.push_back(pair.lux / mean_lux);
    data.ppfd.push_back(pair.ppfd / mean_ppfd);
  }
  const std::vector<double> chances = chances_of_level_shares(data);
  const double unit = mean_ppfd / mean_lux;

  const WeightedFit line = fit_over_chances(data.rows([](double x) { return Row{x}; }), data, chances);
  told.k = line.coefficients[0] * unit;
  told.k_expanded = coverage_factor(line.freedom) * std::sqrt(line.covariance[0][0]) * unit;
  double rest = 0, all = 0, squares = 0;
  for (const LuxPair& pair : pairs) {
    const double residual = pair.ppfd / (told.k * pair.lux) - 1;
    told.residuals.push_back(residual);
    squares += residual * residual;
    rest += std::pow(pair.ppfd - told.k * pair.lux, 2);
    all += std::pow(pair.ppfd - mean_ppfd, 2);
  }
  told.scatter = std::sqrt(squares / static_cast<double>(n - 1));
  told.r_squared = all > 0 ? 1 - rest / all : 0;

  const double span = told.highest_lux / told.lowest_lux;
  if (n >= 4 && span > 1.05) {
    const WeightedFit free = fit_over_chances(data.rows([](double x) { return Row{1, x}; }), data, chances);
    const double sd = std::sqrt(free.covariance[0][0]);
    told.intercept = free.coefficients[0] * mean_ppfd;
    told.intercept_expanded = coverage_factor(free.freedom) * sd * mean_ppfd;
    told.slope_with_intercept = free.coefficients[1] * unit;
    told.slope_expanded = coverage_factor(free.freedom) * std::sqrt(free.covariance[1][1]) * unit;
    told.intercept_differs = std::fabs(free.coefficients[0]) > student_quantile(1 - test_chance / 2, free.freedom) * sd;
    // ppfd / lux = a + b · t, with t from 0 at the lowest to 1 at the highest level: the bend is b / a.
    const std::vector<Row> rows = data.rows([&](double x) {
      return Row{x, x * (x * mean_lux - told.lowest_lux) / (told.highest_lux - told.lowest_lux)};
    });
    const WeightedFit curve = fit_over_chances(rows, data, chances);
    const double a = curve.coefficients[0], b = curve.coefficients[1];
    told.bend = b / a;
    const double variance = curve.covariance[1][1] - 2 * told.bend * curve.covariance[0][1] +
                            told.bend * told.bend * curve.covariance[0][0];
    told.bend_expanded = coverage_factor(curve.freedom) * std::sqrt(std::max(variance, 0.0)) / std::fabs(a);
    told.curve_needed =
        std::fabs(b) > student_quantile(1 - test_chance / 2, curve.freedom) * std::sqrt(curve.covariance[1][1]);
  }
  if (pairs.size() < enough_pairs)
    told.reasons.push_back(fmt::format("{} pairs are too few; take {} at least", pairs.size(), enough_pairs));
  if (span < enough_span)
    told.reasons.push_back(
        fmt::format("all pairs lie between {:.0f} and {:.0f} lx; take levels a factor of two apart at least",
                    told.lowest_lux, told.highest_lux));
  if (told.intercept_differs && told.curve_needed)
    told.reasons.push_back(
        fmt::format("the pairs lie on no line through the origin: it takes an intercept of {} µmol/m²/s, or k that "
                    "changes by {:.1f} % over the levels; check both meters' dark readings first",
                    uncertain_text(told.intercept, told.intercept_expanded, 1), 100 * told.bend));
  else if (told.intercept_differs)
    told.reasons.push_back(fmt::format(
        "the line does not go through the origin but {} µmol/m²/s {} it: check both meters' dark readings",
        uncertain_text(std::fabs(told.intercept), told.intercept_expanded, 1), told.intercept > 0 ? "above" : "below"));
  else if (told.curve_needed)
    told.reasons.push_back(
        fmt::format("k changes by {} % from the lowest to the highest level: one of the meters is not "
                    "linear, or the spectrum changes with the dimmer",
                    uncertain_text(100 * told.bend, 100 * told.bend_expanded, 1)));
  if (told.scatter > most_scatter)
    told.reasons.push_back(
        fmt::format("pairs scatter by {:.0f} % about the line: put both meters on the same place, "
                    "level, and keep shadows away",
                    100 * told.scatter));
  return told;
}

std::optional<SpectrumMatch> spectrum_match(const SpectralCurve& fitted_under, const SpectralCurve& here) {
  const SpectrumMatch match{spectral_distance(fitted_under, here), lux_per_ppfd(fitted_under) / lux_per_ppfd(here)};
  if (!std::isfinite(match.distance) || !std::isfinite(match.factor_ratio)) return std::nullopt;
  return match;
}

std::optional<Problem> lux_factor_refused(const std::optional<SpectrumMatch>& match, bool same_class, double lux,
                                          double lowest_lux, double highest_lux) {
  if (match && (match->distance > same_class_distance || std::fabs(match->factor_ratio - 1) > same_class_factor))
    return Problem{
        fmt::format("This light differs from the one that k was fitted under in {:.0f} % of its photons, which "
                    "moves k by {:+.1f} %",
                    100 * match->distance, 100 * (match->factor_ratio - 1)),
        "PPFD would be wrong by about as much", "fit k under this light, or read with a quantum sensor"};
  if (!match && !same_class)
    return Problem{"This light is not known to have the spectrum that k was fitted under",
                   "another spectrum has another k, by up to a factor of two",
                   "fit k under this light, measure both spectra, or read with a quantum sensor"};
  if (lux > highest_lux * (1 + beyond_range) || lux < lowest_lux * (1 - beyond_range))
    return Problem{fmt::format("{:.0f} lx lies outside of the {:.0f} to {:.0f} lx that k was fitted at", lux,
                               lowest_lux, highest_lux),
                   "whether k holds there is not known", "take pairs at such levels too"};
  return std::nullopt;
}

}  // namespace sunbreak
