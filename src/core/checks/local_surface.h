#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// How a reading stands to the smooth surface through its neighbors.
struct SurfaceResidual {
  double log_ratio = 0;  ///< ln(reading / surface there); NaN where too few neighbors are read
  double leverage = 0;   ///< variance of the surface there, in units of a reading's
};

/// Residuals of a lattice of readings about local quadratic surfaces of ln PPFD, each reading left out of its own
/// surface. `left_out` names stations that are kept out of all surfaces. Zero and unread stations have none.
std::vector<SurfaceResidual> surface_residuals(const Layout& layout, std::span<const double> ppfd,
                                               std::span<const char> left_out);

}  // namespace sunbreak
