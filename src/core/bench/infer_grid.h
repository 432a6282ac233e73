#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/bench/place.h"

namespace sunbreak {

/// The grid on which a list of places lies, and the station each of them is.
struct PlacedPoints {
  Grid grid;
  std::vector<int> stations;  ///< one a place: index into the grid's Layout::stations
};

/// Finds the smallest grid of a kind on a footprint whose stations the places are, each within 8 % of the spacing;
/// lines with no place at all count as unread as long as over half of the lines have one. For an inset grid without a
/// given margin [m] the outermost places set it. Refused where no grid fits: wrong footprint, unit or kind of grid.
Result<PlacedPoints> infer_grid(const Footprint& footprint, GridKind kind, std::span<const Place> places,
                                std::optional<double> margin_m);

}  // namespace sunbreak
