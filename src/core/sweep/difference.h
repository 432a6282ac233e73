#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// One sweep less another at the stations of the first [µmol m⁻² s⁻¹]: by station where both walked the same lattice,
/// otherwise by the other's field, inside its measured area. NaN where either is unknown.
std::vector<double> difference(const Layout& layout, std::span<const double> ppfd, const Layout& other_layout,
                               std::span<const double> other_ppfd);

}  // namespace sunbreak
