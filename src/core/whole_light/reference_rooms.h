#pragma once

#include "core/bench/footprint.h"
#include "core/optics/room.h"

namespace sunbreak {

/// Rooms that tests from unlike spaces are restated in, so that they can be held side by side. Both have the bench's
/// footprint.
inline constexpr double reference_height_m = 2.0;

/// Nothing around that reflects.
constexpr Room open_floor(const Footprint& footprint) {
  return {footprint.width_m, footprint.depth_m, reference_height_m, {}};
}

/// Walls of 0.80, a ceiling of 0.70, a floor of 0.20.
constexpr Room white_tent(const Footprint& footprint) {
  return {footprint.width_m, footprint.depth_m, reference_height_m, {0.8, 0.8, 0.8, 0.8, 0.7, 0.2}};
}

}  // namespace sunbreak
