#include "core/figures/balance.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/figures/statistics.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double line_tolerance = 1e-9;

/// Light and weight on both sides of a line through the middle.
struct Sides {
  double light[2] = {0, 0}, weight[2] = {0, 0};

  /// `place`: the station's signed place across the line.
  void add(double place, double w, double e) {
    // Without a branch: which side a station is on changes from one to the next.
    const double above = place > line_tolerance, under = place < -line_tolerance;
    light[0] += under * e, light[1] += above * e;
    weight[0] += under * w, weight[1] += above * w;
  }
  /// Mean of the positive side less that of the negative side, in % of the mean.
  double difference_pct(double mean) const {
    if (weight[0] <= 0 || weight[1] <= 0) return unread;
    return 100 * (light[1] / weight[1] - light[0] / weight[0]) / mean;
  }
};

}  // namespace

Balance balance(const Layout& layout, std::span<const double> ppfd) {
  const double per_half_width = 2 / layout.footprint.width_m, per_half_depth = 2 / layout.footprint.depth_m;
  double light = 0, weight = 0, light_x = 0, light_y = 0, weight_x = 0, weight_y = 0;
  Sides left_right, front_back, rise, fall;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (std::isnan(ppfd[i])) continue;
    const Station& s = layout.stations[i];
    const double w = s.weight, e = w * ppfd[i];
    weight += w, weight_x += w * s.x_m, weight_y += w * s.y_m;
    light += e, light_x += e * s.x_m, light_y += e * s.y_m;
    const double x = s.x_m * per_half_width - 1, y = s.y_m * per_half_depth - 1;
    left_right.add(x, w, e);
    front_back.add(y, w, e);
    rise.add(x + y, w, e);
    fall.add(y - x, w, e);
  }
  const double mean = light / weight;
  Balance result;
  result.left_right_pct = left_right.difference_pct(mean);
  result.front_back_pct = front_back.difference_pct(mean);
  result.diagonal_rise_pct = rise.difference_pct(mean);
  result.diagonal_fall_pct = fall.difference_pct(mean);
  result.centroid_x_m = light_x / light - weight_x / weight;
  result.centroid_y_m = light_y / light - weight_y / weight;
  return result;
}

std::vector<int> middle_stations(const Layout& layout) {
  const double x = layout.footprint.width_m / 2, y = layout.footprint.depth_m / 2;
  const auto squared_distance = [&](const Station& s) { return (s.x_m - x) * (s.x_m - x) + (s.y_m - y) * (s.y_m - y); };
  double nearest = std::numeric_limits<double>::infinity();
  for (const Station& s : layout.stations) nearest = std::min(nearest, squared_distance(s));
  const double reach = std::sqrt(nearest) + 1e-6;
  std::vector<int> middle;
  for (std::size_t i = 0; i < layout.stations.size(); ++i)
    if (squared_distance(layout.stations[i]) < reach * reach) middle.push_back(static_cast<int>(i));
  return middle;
}

double center_ppfd(const Layout& layout, std::span<const double> ppfd) {
  double sum = 0;
  int read = 0;
  for (const int i : middle_stations(layout))
    if (const double e = ppfd[static_cast<std::size_t>(i)]; !std::isnan(e)) sum += e, ++read;
  return read > 0 ? sum / read : unread;
}

}  // namespace sunbreak
