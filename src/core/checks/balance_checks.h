#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"
#include "core/quantity/display.h"

namespace sunbreak {

/// Opposite halves that read unlike by more than 2 % of the mean: which side is brighter, and about how far the fixture
/// would have to move for that, by the sweep's own slopes. It cannot tell a shift from a lean on one sweep, and says
/// so, lengths in `units`. For lattices in which both halves are read.
std::vector<Finding> balance_checks(const Layout& layout, std::span<const double> ppfd,
                                    UnitSystem units = UnitSystem::Metric);

}  // namespace sunbreak
