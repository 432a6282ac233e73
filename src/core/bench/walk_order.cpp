#include "core/bench/walk_order.h"

#include <numeric>

namespace sunbreak {

std::vector<int> serpentine_from_far(const Layout& layout) {
  std::vector<int> order(layout.stations.size());
  if (!layout.is_lattice()) {
    std::iota(order.begin(), order.end(), 0);
    return order;
  }
  order.clear();
  for (int row = layout.rows - 1; row >= 0; --row) {
    const bool rightward = (layout.rows - 1 - row) % 2 == 0;
    for (int step = 0; step < layout.columns; ++step)
      order.push_back(layout.index(rightward ? step : layout.columns - 1 - step, row));
  }
  return order;
}

}  // namespace sunbreak
