#pragma once

#include <Eigen/Core>
#include <span>

#include "core/optics/form_factor.h"

namespace sunbreak {

/// Patch area times form factor [m²] between all patches of a box's sides, in the order of `sides`: symmetric, zero
/// within a side. From each patch at `points` × `points` places (2 or 3) of the Gauss-Legendre rule, exact toward the
/// other.
Eigen::MatrixXd mutual_areas(std::span<const PatchGrid> sides, int points);

}  // namespace sunbreak
