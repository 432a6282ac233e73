#pragma once

#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// The order in which stations are read, as indices into Layout::stations. Starts at the far row and snakes toward the
/// door, so that the arm never reaches over a station that is still to be read; spots keep the order they were named
/// in.
std::vector<int> serpentine_from_far(const Layout& layout);

}  // namespace sunbreak
