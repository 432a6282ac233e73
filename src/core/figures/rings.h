#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// One closed line of stations around the middle.
struct Ring {
  double outer_m = 0, inner_m = 0;  ///< distances of the ring's band from the wall, along x
  int read = 0;                     ///< stations read
  double mean_ppfd = 0;             ///< plain mean of the stations read; NaN where none was
};

/// The rings of a lattice from the wall inwards; none for spots. Stations of a ring count alike: they are evenly spaced
/// along it, whatever share of the area they carry.
std::vector<Ring> rings(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
