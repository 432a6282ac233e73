#pragma once

#include <string_view>

#include "core/result.h"

namespace sunbreak {

/// The lit floor of a bench: width along x (left to right, seen from the door), depth along y (away from the door).
struct Footprint {
  double width_m = 1.2;
  double depth_m = 1.2;

  double area_m2() const { return width_m * depth_m; }
  bool operator==(const Footprint&) const = default;
};

/// An axis-aligned rectangle in footprint coordinates (origin front left).
struct Rectangle {
  double left_m = 0, front_m = 0, width_m = 0, depth_m = 0;

  double area_m2() const { return width_m * depth_m; }
  bool operator==(const Rectangle&) const = default;
};

/// Reads "120x120cm", "4x4ft", "60 cm x 1.2 m"; the second side's unit holds for the first where that has none.
Result<Footprint> parse_footprint(std::string_view text);

}  // namespace sunbreak
