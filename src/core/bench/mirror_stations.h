#pragma once

#include <algorithm>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// Indices of a lattice's stations that a pattern even about both middles lights alike: the station itself and its
/// images across the middle lines, each once.
inline std::vector<int> mirror_stations(const Layout& lattice, const Station& station) {
  std::vector<int> alike;
  for (const int column : {station.column, lattice.columns - 1 - station.column})
    for (const int row : {station.row, lattice.rows - 1 - station.row})
      if (const int image = lattice.index(column, row); std::ranges::find(alike, image) == alike.end())
        alike.push_back(image);
  return alike;
}

}  // namespace sunbreak
