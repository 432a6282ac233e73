#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"

namespace sunbreak {

/// Standard deviations beyond which a reading is far off.
inline constexpr double far_deviations = 4.1;

/// Readings far from what their neighbors or their mirror images make likely: over far_deviations robust standard
/// deviations of all residuals, and over 5 %. The worst is taken out and the rest judged anew, so that one bad reading
/// does not accuse its neighbors. Slips of a digit, a tilted sensor, a shadow. `noise_shares` as in reading_views().
/// Method: docs/method.md.
std::vector<Finding> far_reading_checks(const Layout& layout, std::span<const double> ppfd,
                                        std::span<const double> noise_shares = {});

}  // namespace sunbreak
