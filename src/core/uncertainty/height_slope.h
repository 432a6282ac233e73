#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// The stations' light at one height.
struct RungLight {
  double height_m = 0;
  std::vector<double> ppfd;  ///< one value a station, NaN where unknown
};

/// How fast each station's light changes with height at `height_m`, d ln E / dh [1/m]. Light goes with a power of the
/// height that itself changes: from the rung there and the two next to it by the parabola of ln E in ln h, at the outer
/// rungs too; from two by the step between them, and how the power changes along it from what is known of lamps: the
/// patterns at both ends grow with the height as a small lamp's do (growing_power()), and the mean falls as under a
/// glowing disc, E ~ 1 / (h² + R²). A station without another rung's light takes the others' mean power. Empty where
/// there is no rung at that height or no other one.
std::vector<double> height_slope(const Layout& layout, std::span<const RungLight> rungs, double height_m);

/// The same where no other height was walked: the mean with the inverse of the height, which is the most that it falls
/// by between walls; the pattern as a small lamp's, or, where that is more, so that lowest ÷ mean rises with about the
/// height, as the optical model has it of usual lamps between walls.
std::vector<double> usual_height_slope(const Layout& layout, std::span<const double> ppfd, double height_m);

/// d ln E / d ln h of a small lamp without walls, less its mean over the light: E = f(r/h) / h², so it is −2 − r · d ln
/// E / dr with r from under the lamp. 0 where a slope is not known.
std::vector<double> growing_power(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
