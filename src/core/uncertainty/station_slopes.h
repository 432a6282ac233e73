#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// How fast the light changes at a station along each axis [µmol m⁻² s⁻¹ per m].
struct StationSlope {
  double x = 0, y = 0;
};

/// Slopes by the stations on either side; 0 for loose spots and where neighbors were not read.
std::vector<StationSlope> station_slopes(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
