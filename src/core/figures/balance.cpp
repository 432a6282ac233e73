#include "core/figures/balance.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/figures/statistics.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double line_tolerance = 1e-9;

/// Mean of the positive side less that of the negative side, in % of the mean. `side` is a signed place of a station.
template <typename Side>
double difference_pct(const Layout& layout, std::span<const double> ppfd, double mean, Side side) {
  double sums[2] = {0, 0}, weights[2] = {0, 0};
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    const double place = side(layout.stations[i]);
    if (std::isnan(ppfd[i]) || std::abs(place) < line_tolerance) continue;
    sums[place > 0] += layout.stations[i].weight * ppfd[i];
    weights[place > 0] += layout.stations[i].weight;
  }
  if (weights[0] <= 0 || weights[1] <= 0) return unread;
  return 100 * (sums[1] / weights[1] - sums[0] / weights[0]) / mean;
}

}  // namespace

Balance balance(const Layout& layout, std::span<const double> ppfd) {
  const double half_width = layout.footprint.width_m / 2, half_depth = layout.footprint.depth_m / 2;
  double light = 0, weight = 0, light_x = 0, light_y = 0, weight_x = 0, weight_y = 0;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (std::isnan(ppfd[i])) continue;
    const Station& s = layout.stations[i];
    const double w = s.weight, e = w * ppfd[i];
    weight += w, weight_x += w * s.x_m, weight_y += w * s.y_m;
    light += e, light_x += e * s.x_m, light_y += e * s.y_m;
  }
  const double mean = light / weight;
  const auto x = [&](const Station& s) { return s.x_m / half_width - 1; };
  const auto y = [&](const Station& s) { return s.y_m / half_depth - 1; };
  Balance result;
  result.left_right_pct = difference_pct(layout, ppfd, mean, x);
  result.front_back_pct = difference_pct(layout, ppfd, mean, y);
  result.diagonal_rise_pct = difference_pct(layout, ppfd, mean, [&](const Station& s) { return x(s) + y(s); });
  result.diagonal_fall_pct = difference_pct(layout, ppfd, mean, [&](const Station& s) { return y(s) - x(s); });
  result.centroid_x_m = light_x / light - weight_x / weight;
  result.centroid_y_m = light_y / light - weight_y / weight;
  return result;
}

double center_ppfd(const Layout& layout, std::span<const double> ppfd) {
  const double x = layout.footprint.width_m / 2, y = layout.footprint.depth_m / 2;
  const auto distance = [&](const Station& s) {
    return std::sqrt((s.x_m - x) * (s.x_m - x) + (s.y_m - y) * (s.y_m - y));
  };
  double nearest = std::numeric_limits<double>::infinity();
  for (const Station& s : layout.stations) nearest = std::min(nearest, distance(s));
  double sum = 0;
  int read = 0;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (!std::isnan(ppfd[i]) && distance(layout.stations[i]) < nearest + 1e-6) sum += ppfd[i], ++read;
  return read > 0 ? sum / read : unread;
}

}  // namespace sunbreak
