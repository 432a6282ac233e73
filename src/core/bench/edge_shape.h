#pragma once

#include "core/bench/footprint.h"

namespace sunbreak {

/// A smooth pattern over an area that is −1 in its middle, ½ at the middles of its sides and 2 in its corners, with a
/// mean of 0: how light along the edge may be off, or change, beside that in the middle.
constexpr double edge_shape(const Rectangle& area, double x_m, double y_m) {
  const double u = 2 * (x_m - area.left_m) / area.width_m - 1, v = 2 * (y_m - area.front_m) / area.depth_m - 1;
  return 1.5 * (u * u + v * v) - 1;
}

}  // namespace sunbreak
