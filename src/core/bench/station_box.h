#pragma once

#include <optional>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// The part of the measured area that is nearest to each station of a lattice, one a station; none for loose spots.
std::vector<Rectangle> station_boxes(const Layout& layout);

/// The station whose box, or for loose spots whose place, is nearest; nothing outside the footprint.
std::optional<int> station_near(const Layout& layout, double x_m, double y_m);

}  // namespace sunbreak
