#include "core/uncertainty/height_slope.h"

#include <algorithm>
#include <cmath>

#include "core/bench/edge_shape.h"
#include "core/sweep/field.h"
#include "core/uncertainty/station_slopes.h"

namespace sunbreak {
namespace {

constexpr double same_rung_m = 1e-4;
constexpr std::size_t most_rungs = 3;

/// d ln E / d ln h at `at`, of the polynomial of ln E in ln h through as many rungs as there are; NaN where one has no
/// light.
double power_at(std::span<const RungLight* const> rungs, std::size_t station, double at) {
  double slope = 0;
  for (std::size_t k = 0; k < rungs.size(); ++k) {
    // The derivative of Lagrange's polynomial that is 1 at rung k and 0 at the others.
    double below = 1, sum = 0;
    for (std::size_t j = 0; j < rungs.size(); ++j) {
      if (j == k) continue;
      below *= std::log(rungs[k]->height_m) - std::log(rungs[j]->height_m);
      double product = 1;
      for (std::size_t i = 0; i < rungs.size(); ++i)
        if (i != k && i != j) product *= at - std::log(rungs[i]->height_m);
      sum += product;
    }
    slope += std::log(rungs[k]->ppfd[station]) * sum / below;
  }
  return std::isfinite(slope) ? slope : unread;
}

/// By how much the power of the height that the mean falls with differs at the first of two rungs from the one between
/// them: as under a glowing disc, whose light goes with 1 / (h² + R²), so with the power −2 x / (1 + x), x = h²/R².
double towards_the_outer(std::span<const RungLight* const> near, double at) {
  double here = 0, there = 0;
  for (std::size_t i = 0; i < near[0]->ppfd.size(); ++i)
    if (near[0]->ppfd[i] > 0 && near[1]->ppfd[i] > 0) here += near[0]->ppfd[i], there += near[1]->ppfd[i];
  const double apart = std::log(near[1]->height_m) - at, between = std::clamp(std::log(here / there) / apart, 0.0, 1.9),
               x = between / (2 - between), x_here = x * std::exp(-apart);
  return std::isfinite(x_here) ? between - 2 * x_here / (1 + x_here) : 0;
}

}  // namespace

std::vector<double> height_slope(const Layout& layout, std::span<const RungLight> rungs, double height_m) {
  const double at = std::log(height_m);
  std::vector<const RungLight*> near;
  for (const RungLight& rung : rungs) near.push_back(&rung);
  std::ranges::stable_sort(near, {}, [&](const RungLight* r) { return std::abs(std::log(r->height_m) - at); });
  if (near.size() < 2 || std::abs(near.front()->height_m - height_m) > same_rung_m) return {};
  if (near.size() > most_rungs) {
    // One to either side where there is one: what lies between is told better than what lies beyond.
    const bool above = near[1]->height_m > height_m;
    const auto other = std::find_if(near.begin() + 2, near.end(),
                                    [&](const RungLight* r) { return (r->height_m > height_m) != above; });
    if (other != near.end()) std::iter_swap(near.begin() + 2, other);
    near.resize(most_rungs);
  }
  const double toward = towards_the_outer(near, at);
  const std::vector<double> here = growing_power(layout, near[0]->ppfd), there = growing_power(layout, near[1]->ppfd);
  std::vector<double> powers;
  double sum = 0;
  int known = 0;
  for (std::size_t i = 0; i < near.front()->ppfd.size(); ++i) {
    double power = unread;
    if (near.size() > 2) power = power_at(near, i, at);
    if (std::isnan(power))
      power = power_at(std::span<const RungLight* const>(near).first(2), i, at) + (here[i] - there[i]) / 2 + toward;
    powers.push_back(power);
    if (!std::isnan(power)) sum += power, ++known;
  }
  if (known == 0) return {};
  for (double& power : powers) power = (std::isnan(power) ? sum / known : power) / height_m;
  return powers;
}

std::vector<double> usual_height_slope(const Layout& layout, std::span<const double> ppfd, double height_m) {
  std::vector<double> slopes = growing_power(layout, ppfd);
  constexpr double edge_beside_mean = 2.0 / 3;
  double light = 0, shaped = 0;
  std::vector<double> shapes;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    shapes.push_back(edge_shape(layout.measured, layout.stations[i].x_m, layout.stations[i].y_m));
    if (std::isfinite(ppfd[i])) light += ppfd[i], shaped += ppfd[i] * shapes.back();
  }
  for (std::size_t i = 0; i < slopes.size(); ++i) {
    const double usual = edge_beside_mean * (shapes[i] - (light > 0 ? shaped / light : 0));
    slopes[i] = ((std::abs(usual) > std::abs(slopes[i]) ? usual : slopes[i]) - 1) / height_m;
  }
  return slopes;
}

std::vector<double> growing_power(const Layout& layout, std::span<const double> ppfd) {
  const std::vector<StationSlope> slopes = relative_slopes(layout, ppfd);
  double light = 0, weighed = 0, x_m = 0, y_m = 0;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (ppfd[i] > 0) {
      // The lamp hangs over the middle, as near as the light's centroid tells.
      light += ppfd[i], x_m += ppfd[i] * layout.stations[i].x_m, y_m += ppfd[i] * layout.stations[i].y_m;
    }
  std::vector<double> powers;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    const Station& s = layout.stations[i];
    powers.push_back(-(slopes[i].x * (s.x_m - x_m / light) + slopes[i].y * (s.y_m - y_m / light)));
    if (ppfd[i] > 0) weighed += ppfd[i] * powers.back();
  }
  for (double& p : powers) p -= weighed / light;
  return powers;
}

}  // namespace sunbreak
