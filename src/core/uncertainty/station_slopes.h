#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// How fast something changes at a station along each axis [its unit per m].
struct StationSlope {
  double x = 0, y = 0;
};

/// Slopes of what has one value a station, by the parabola through it and its neighbors; 0 for loose spots and where
/// neighbors were not read.
std::vector<StationSlope> station_slopes(const Layout& layout, std::span<const double> values);

/// Slopes of light, relative to it [1/m]: of the parabola of ln E, since light falls by shares where it is steep.
std::vector<StationSlope> relative_slopes(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
