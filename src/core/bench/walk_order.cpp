#include "core/bench/walk_order.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

namespace sunbreak {
namespace {

constexpr std::array<std::pair<WalkOrder, std::string_view>, 3> order_names{
    {{WalkOrder::FarToDoor, "far to door"},
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

/// The stations of the ring that lies `in` stations from the wall, around from its far left; of a ring that is a line,
/// from its left or far end.
std::vector<int> ring(const Layout& layout, int in) {
  const int left = in, right = layout.columns - 1 - in, near = in, far = layout.rows - 1 - in;
  std::vector<int> around;
  for (int c = left; c <= right; ++c) around.push_back(layout.index(c, far));
  for (int r = far - 1; r >= near; --r) around.push_back(layout.index(right, r));
  if (near < far)
    for (int c = right - 1; c >= left; --c) around.push_back(layout.index(c, near));
  if (left < right)
    for (int r = near + 1; r < far; ++r) around.push_back(layout.index(left, r));
  return around;
}

/// Rings from the innermost out, each begun next to where the one before ended.
std::vector<int> outward(const Layout& layout) {
  std::vector<int> order;
  for (int in = (std::min(layout.columns, layout.rows) - 1) / 2; in >= 0; --in) {
    std::vector<int> around = ring(layout, in);
    if (!order.empty()) {
      const Station& last = layout.stations[order.back()];
      const auto away = [&](int i) {
        const Station& s = layout.stations[i];
        return std::max(std::abs(s.column - last.column), std::abs(s.row - last.row));
      };
      std::rotate(around.begin(),
                  std::min_element(around.begin(), around.end(), [&](int a, int b) { return away(a) < away(b); }),
                  around.end());
    }
    order.insert(order.end(), around.begin(), around.end());
  }
  return order;
}

}  // namespace

std::string_view name(WalkOrder order) {
  for (const auto& [value, text] : order_names)
    if (value == order) return text;
  return {};
}

std::optional<WalkOrder> parse_walk_order(std::string_view text) {
  for (const auto& [value, known] : order_names)
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
