#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/local_surface.h"

namespace sunbreak {

/// Residuals of a lattice of readings about its own mirror images: ln PPFD as any pattern that is even about both
/// middle lines, plus a smooth odd part (to the fifth degree) for what hangs off center or off level. A sharp pattern
/// costs nothing here, and edges are judged as well as the middle. None where fewer than two mirrored stations are
/// read, and none at all where under nine in ten stations are.
std::vector<SurfaceResidual> mirror_residuals(const Layout& layout, std::span<const double> ppfd,
                                              std::span<const char> left_out);

}  // namespace sunbreak
