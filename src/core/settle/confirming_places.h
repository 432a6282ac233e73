#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// The stations that tell most of a predicted sweep, at most nine: the one nearest to the middle, the corners, those
/// predicted lowest and highest, the middles of the sides. Empty where the stations form no lattice.
std::vector<Spot> confirming_places(const Layout& stations, std::span<const double> predicted_ppfd);

}  // namespace sunbreak
