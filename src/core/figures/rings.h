#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// One closed line of stations around the middle.
struct Ring {
  double outer_m = 0, inner_m = 0;  ///< distances of the ring's band from the wall, along x
  int read = 0;                     ///< stations read
  double mean_ppfd = 0;             ///< mean along it over the stations read; NaN where none was
  double read_share = 0;            ///< of its length
};

/// The rings of a lattice from the wall inwards; none for spots. A station counts by the length of the ring that it
/// stands for, whatever share of the area it carries: the outermost ring's mean is the edge's (AreaPlan).
std::vector<Ring> rings(const Layout& layout, std::span<const double> ppfd);

/// Mean along the outermost closed line of stations, as AreaPlan has it of all that was measured; NaN on loose spots,
/// and where less than nine tenths of the line was read.
double edge_ppfd(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
