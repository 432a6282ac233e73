#include "core/uncertainty/observed_terms.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/uncertainty/station_slopes.h"

namespace sunbreak {
namespace {

/// Variances of what is usual are taken to be off by this (standard deviation of their logarithm): as if seen with four
/// degrees of freedom.
const double usual_spread = std::sqrt(2 / 4.0);
/// No sensor reads finer than this.
constexpr double least_scatter = 0.0002, least_place_m = 0.0001;
/// Residuals farther off than this many of their standard deviations are slips, not scatter.
constexpr double far_off = 3;

/// A mean square with its degrees of freedom, and what a place that is off by 1 m would add to it.
struct Square {
  double value = 0, freedom = 0, slope = 0;
};

std::vector<Square> squares_of(const Layout& layout, const ExpectedLight& expected, std::span<const Repeats> repeats) {
  const std::vector<StationSlope> slopes = relative_slopes(layout, expected.ppfd);
  const auto slope = [&](std::size_t i) { return slopes[i].x * slopes[i].x + slopes[i].y * slopes[i].y; };
  std::vector<Square> all;
  for (const Repeats& r : repeats) {
    const auto count = static_cast<double>(r.ppfd.size());
    double mean = 0, squares = 0;
    for (const double e : r.ppfd) mean += e / count;
    if (count < 2 || !(mean > 0)) continue;
    for (const double e : r.ppfd) squares += (e / mean - 1) * (e / mean - 1);
    all.push_back({squares / (count - 1), count - 1, slope(static_cast<std::size_t>(r.station))});
  }
  for (std::size_t i = 0; i < expected.residuals.size(); ++i) {
    const SurfaceResidual& r = expected.residuals[i];
    if (std::isnan(r.log_ratio)) continue;
    const double own = 1 + r.leverage,
                 square = std::min(r.log_ratio * r.log_ratio / own, std::pow(far_off * expected.noise, 2));
    all.push_back({square, 1 / own, slope(i)});
  }
  return all;
}

/// What is sought: logarithms of the two variances, with the information there is of each.
struct TwoVariances {
  double noise, place;
  double noise_information = 0, place_information = 0;
};

TwoVariances most_likely(std::span<const Square> squares, double usual, double position_m, bool place_is_known) {
  const double prior = 1 / (usual_spread * usual_spread), noise_before = 2 * std::log(usual),
               place_before = 2 * std::log(position_m);
  TwoVariances s{noise_before, place_before};
  constexpr int most_steps = 60;
  constexpr double longest_step = 1, small_step = 1e-6;
  for (int step = 0; step < most_steps; ++step) {
    double g0 = prior * (noise_before - s.noise), g1 = prior * (place_before - s.place), h00 = prior, h11 = prior,
           h01 = 0;
    for (const Square& q : squares) {
      const double a = std::exp(s.noise), b = std::exp(s.place) * q.slope, whole = a + b, off = q.value / whole - 1;
      g0 += q.freedom / 2 * off * a / whole, g1 += q.freedom / 2 * off * b / whole;
      h00 += q.freedom / 2 * a * a / whole / whole, h11 += q.freedom / 2 * b * b / whole / whole;
      h01 += q.freedom / 2 * a * b / whole / whole;
    }
    if (place_is_known) g1 = 0, h01 = 0;
    const double determinant = h00 * h11 - h01 * h01;
    const double d0 = std::clamp((h11 * g0 - h01 * g1) / determinant, -longest_step, longest_step),
                 d1 = std::clamp((h00 * g1 - h01 * g0) / determinant, -longest_step, longest_step);
    s.noise = std::max(s.noise + d0, 2 * std::log(least_scatter));
    s.place = std::max(s.place + d1, 2 * std::log(least_place_m));
    s.noise_information = determinant / h11, s.place_information = determinant / h00;
    if (std::abs(d0) + std::abs(d1) < small_step) break;
  }
  return s;
}

}  // namespace

ObservedScatter observed_scatter(const Layout& layout, const ExpectedLight& expected, std::span<const Repeats> repeats,
                                 const InputQuantity& position_m, double usual) {
  ObservedScatter found{{usual, Origin::Assumed, "usual for a reading taken with care"}, position_m};
  const std::vector<Square> squares = squares_of(layout, expected, repeats);
  const bool known = position_m.origin == Origin::Stated || !(position_m.value > 0);
  const TwoVariances s = most_likely(squares, usual, std::max(position_m.value, least_place_m), known);
  // Of the variance of a logarithm of a variance with ν degrees of freedom, 2/ν.
  found.repeatability.freedom = 2 * s.noise_information;
  if (!known) found.position_m.freedom = 2 * s.place_information;
  if (squares.empty()) return found;
  found.repeatability.value = std::exp(s.noise / 2), found.repeatability.origin = Origin::Measured;
  const auto again = std::ranges::count_if(repeats, [](const Repeats& r) { return r.ppfd.size() > 1; });
  std::string& words = found.repeatability.words;
  words = again > 0 ? fmt::format("from {} read again", again == 1 ? "1 station" : fmt::format("{} stations", again))
                    : "from";
  if (!expected.residuals.empty())
    words += again > 0 ? " and how all scatter about a smooth surface" : " how readings scatter about a smooth surface";
  words += fmt::format(", {:.0f} degrees of freedom", found.repeatability.freedom);
  constexpr double tells_more_than_usual = 2;
  if (!known && found.position_m.freedom > tells_more_than_usual * 2 / usual_spread / usual_spread) {
    found.position_m.value = std::exp(s.place / 2), found.position_m.origin = Origin::Measured;
    found.position_m.words = fmt::format(
        "from how readings scatter where the light is steep, {:.0f} degrees of freedom", found.position_m.freedom);
  }
  return found;
}

InputQuantity drift_term(const Drift& drift, double noise, double usual, double unseen) {
  if (!drift.exists()) return {unseen, Origin::Assumed, "the reference station was not read again"};
  const double unsure = noise * std::sqrt(2.0);
  if (drift.significant()) return {unsure, Origin::Measured, "scaled by the reference; its noise is left"};
  const double trust = usual * usual / (usual * usual + unsure * unsure);
  return {std::hypot(trust * drift.change(), std::sqrt(trust) * unsure), Origin::Measured,
          "what the reference leaves possible"};
}

}  // namespace sunbreak
