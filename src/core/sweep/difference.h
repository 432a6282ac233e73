#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// Another sweep's light at the stations of a layout: by station where both walked the same lattice, otherwise by its
/// field, inside its measured area. NaN where it is unknown.
std::vector<double> light_at(const Layout& layout, const Layout& other_layout, std::span<const double> other_ppfd);

/// One sweep less another at the stations of the first [µmol m⁻² s⁻¹]; NaN where either is unknown.
std::vector<double> difference(const Layout& layout, std::span<const double> ppfd, const Layout& other_layout,
                               std::span<const double> other_ppfd);

}  // namespace sunbreak
