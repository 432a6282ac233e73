#include "core/bench/walk_order.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

namespace sunbreak {
namespace {

constexpr std::array<std::pair<WalkOrder, std::string_view>, 3> names{{{WalkOrder::FarToDoor, "far to door"},
                                                                       {WalkOrder::DoorToFar, "door to far"},
                                                                       {WalkOrder::CenterOutward, "center outward"}}};

std::vector<int> serpentine(const Layout& layout, bool from_far) {
  std::vector<int> order;
  for (int turn = 0; turn < layout.rows; ++turn)
    for (int step = 0; step < layout.columns; ++step)
      order.push_back(
          layout.index(turn % 2 == 0 ? step : layout.columns - 1 - step, from_far ? layout.rows - 1 - turn : turn));
  return order;
}

/// Rings from the innermost out, each once around from its far left.
std::vector<int> outward(const Layout& layout) {
  const auto ring = [&](const Station& s) {
    return std::min({s.column, s.row, layout.columns - 1 - s.column, layout.rows - 1 - s.row});
  };
  const double middle_x = (layout.columns - 1) / 2.0, middle_y = (layout.rows - 1) / 2.0;
  // Scaled to a square, so that the corner of every ring lies on its diagonal.
  const auto turn = [&](const Station& s) {
    const double right = (s.column - middle_x) / std::max(middle_x, 1.0),
                 far = (s.row - middle_y) / std::max(middle_y, 1.0);
    double angle = std::atan2(right, far) + std::acos(-1) / 4;
    if (angle < -1e-9) angle += 2 * std::acos(-1);
    return angle;
  };
  std::vector<int> order(layout.stations.size());
  std::iota(order.begin(), order.end(), 0);
  std::stable_sort(order.begin(), order.end(), [&](int a, int b) {
    const Station &p = layout.stations[a], &q = layout.stations[b];
    if (ring(p) != ring(q)) return ring(p) > ring(q);
    return turn(p) < turn(q) - 1e-9;
  });
  return order;
}

}  // namespace

std::string_view name(WalkOrder order) {
  for (const auto& [value, text] : names)
    if (value == order) return text;
  return {};
}

std::optional<WalkOrder> parse_walk_order(std::string_view text) {
  for (const auto& [value, known] : names)
    if (known == text) return value;
  return {};
}

std::vector<int> walk_order(const Layout& layout, WalkOrder order) {
  if (!layout.is_lattice()) {
    std::vector<int> as_named(layout.stations.size());
    std::iota(as_named.begin(), as_named.end(), 0);
    return as_named;
  }
  return order == WalkOrder::CenterOutward ? outward(layout) : serpentine(layout, order == WalkOrder::FarToDoor);
}

std::vector<int> opening_probe(const Layout& layout) {
  if (layout.columns < 3 || layout.rows < 3) return {};
  const int right = layout.columns - 1, far = layout.rows - 1;
  return {layout.index(0, far), layout.index(right, far), layout.index(right, 0), layout.index(0, 0),
          reference_station(layout)};
}

std::vector<int> with_probe_first(const std::vector<int>& walk, const std::vector<int>& probe) {
  std::vector<int> order = probe;
  for (const int station : walk)
    if (std::find(probe.begin(), probe.end(), station) == probe.end()) order.push_back(station);
  return order;
}

int reference_station(const Layout& layout) {
  const double x = layout.measured.left_m + layout.measured.width_m / 2,
               y = layout.measured.front_m + layout.measured.depth_m / 2;
  int nearest = 0;
  double least = INFINITY;
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const double distance = std::hypot(layout.stations[i].x_m - x, layout.stations[i].y_m - y);
    if (distance < least - 1e-9) least = distance, nearest = static_cast<int>(i);
  }
  return nearest;
}

}  // namespace sunbreak
