#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/local_surface.h"

namespace sunbreak {

/// How many terms a smooth surface over the whole lattice may have: polynomials in x and y from −1 to 1, those that are
/// even about both middle lines up to one degree, and those that change sign in a mirror up to another.
struct SmoothDegrees {
  int even = 8, odd = 3;
};

/// Residuals of a lattice of readings about one smooth surface of ln PPFD fitted to all of them, each reading judged by
/// the surface without it. Sharper than local surfaces where the light is smooth, at edges and corners above all; where
/// it is not, the scatter of the residuals says so. None where fewer than one and a half times as many stations are
/// read as the surface has terms, or where they do not determine it.
std::vector<SurfaceResidual> smooth_residuals(const Layout& layout, std::span<const double> ppfd,
                                              std::span<const char> left_out, const SmoothDegrees& degrees);

}  // namespace sunbreak
