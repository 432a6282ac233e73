#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/result.h"

namespace sunbreak {

/// A sweep on a coarser lattice: each coarse station has the mean of the fine readings over its own cell.
struct Reduced {
  Layout layout;
  std::vector<double> ppfd;  ///< NaN where less than half of the cell was read
};

/// Averages a sweep into the cells of a coarser grid of equal cells over the same measured area, each fine reading by
/// the area its own box shares with the cell. The area mean stays as it is. This is how evenness of unlike grids is
/// compared: their extremes differ by density alone. Refused for spots, and where the grid asked for is finer.
Result<Reduced> reduce(const Layout& layout, std::span<const double> ppfd, int columns, int rows);

}  // namespace sunbreak
