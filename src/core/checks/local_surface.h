#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/check.h"

namespace sunbreak {

/// How a reading stands to the smooth surface through its neighbors.
struct SurfaceResidual {
  double log_ratio = 0;  ///< ln(reading / surface there); NaN where too few neighbors are read
  double leverage = 0;   ///< variance of the surface there, in units of a reading's
  double standard = 0;   ///< log_ratio over √(1 + leverage)
};

/// Residuals of a lattice of readings about local quadratic surfaces of ln PPFD, each reading left out of its own
/// surface. `left_out` names stations that are kept out of all surfaces. Zero and unread stations have none.
std::vector<SurfaceResidual> surface_residuals(const Layout& layout, std::span<const double> ppfd,
                                               std::span<const char> left_out);

/// Relative standard deviation of one reading, as the scatter about the surface that fits best tells it; NaN
/// where fewer than 20 readings have a surface.
double reading_noise(const Layout& layout, std::span<const double> ppfd);

/// The light that the readings are taken to scatter about: the surface they fit best, without any reading's own noise.
/// The readings themselves where too few have a surface, and NaN where nothing was read.
std::vector<double> expected_light(const Layout& layout, std::span<const double> ppfd);

/// Readings far from what their neighbors or their mirror images make likely: over 4.2 robust standard deviations of
/// all residuals, and over 5 %. The worst is taken out and the rest judged anew, so that one bad reading does not
/// accuse its neighbors. Slips of a digit, a tilted sensor, a shadow. Method: docs/method.md.
std::vector<Check> local_surface_checks(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
