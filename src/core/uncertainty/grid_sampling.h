#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// A sweep's two half grids, as a chessboard parts them: every reading is in one of them, NaN stands for the rest.
struct HalfGrids {
  std::vector<double> first, second;
};
HalfGrids half_grids(const Layout& layout, std::span<const double> ppfd);

/// A half grid made whole again: each station that is not in it has the mean of its neighbors that are.
std::vector<double> filled(const Layout& layout, std::span<const double> half);

/// What the mean over the area misses (what is there less what is found) because the light bends between stations,
/// relative to the mean: the leading term of Euler and Maclaurin's formula, h²/24 of the slope through the walls for
/// cells and −h²/12 for stations from edge to edge. Half grids cannot show it, since it is alike on both. 0 where there
/// are fewer than three lines.
double edge_term(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
