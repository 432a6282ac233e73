#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"

namespace sunbreak {

/// Opposite halves that read unlike by more than 2 % of the mean: which side is brighter, and about how far the fixture
/// would have to move for that, by the sweep's own slopes. It cannot tell a shift from a lean on one sweep, and says
/// so. For lattices in which both halves are read.
std::vector<Finding> balance_checks(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
