#pragma once

#include <span>
#include <vector>

namespace sunbreak {

/// The stations' light at one height.
struct RungLight {
  double height_m = 0;
  std::vector<double> ppfd;  ///< one value a station, NaN where unknown
};

/// How fast each station's light changes with height at `height_m`, d ln E / dh [1/m], from the rungs next above and
/// below it and the one at it: the slope at the middle of the parabola through the three, or of the straight line where
/// there are two. Empty where there is no rung at that height or no other one.
std::vector<double> height_slope(std::span<const RungLight> rungs, double height_m);

}  // namespace sunbreak
