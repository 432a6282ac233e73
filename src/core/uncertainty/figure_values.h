#pragma once

#include <span>
#include <string_view>
#include <vector>

#include "core/figures/sweep_figures.h"

namespace sunbreak {

/// The figures of a sweep that carry an uncertainty, by id; ids are those of the definitions where there is one.
std::span<const std::string_view> uncertain_figures();

/// Where a figure stands in that list; −1 where it is not in it.
int uncertain_index(std::string_view id);

/// The figures' values in that order; NaN where the sweep has none. The share in band is passed in, since it is worked
/// out on the field.
std::vector<double> figure_values(const SweepFigures& f, double in_band_share);

}  // namespace sunbreak
