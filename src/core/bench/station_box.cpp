#include "core/bench/station_box.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

/// Borders halfway between neighbors, from the area's one edge to its other.
std::vector<double> borders(const std::vector<double>& places, double from, double to) {
  std::vector<double> result{from};
  for (std::size_t i = 1; i < places.size(); ++i) result.push_back((places[i - 1] + places[i]) / 2);
  result.push_back(to);
  return result;
}

}  // namespace

std::vector<Rectangle> station_boxes(const Layout& layout) {
  if (!layout.is_lattice()) return {};
  const Rectangle& area = layout.measured;
  const auto xs = borders(layout.xs_m, area.left_m, area.left_m + area.width_m);
  const auto ys = borders(layout.ys_m, area.front_m, area.front_m + area.depth_m);
  std::vector<Rectangle> boxes;
  for (const Station& s : layout.stations)
    boxes.push_back({xs[s.column], ys[s.row], xs[s.column + 1] - xs[s.column], ys[s.row + 1] - ys[s.row]});
  return boxes;
}

std::optional<int> station_near(const Layout& layout, double x_m, double y_m) {
  if (x_m < 0 || y_m < 0 || x_m > layout.footprint.width_m || y_m > layout.footprint.depth_m || layout.stations.empty())
    return {};
  const auto nearer = [&](const Station& a, const Station& b) {
    return std::hypot(a.x_m - x_m, a.y_m - y_m) < std::hypot(b.x_m - x_m, b.y_m - y_m);
  };
  return static_cast<int>(std::min_element(layout.stations.begin(), layout.stations.end(), nearer) -
                          layout.stations.begin());
}

}  // namespace sunbreak
