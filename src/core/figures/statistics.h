#pragma once

#include <span>
#include <vector>

namespace sunbreak {

/// Σ w·v / Σ w over values that are not NaN; NaN where there are none.
double weighted_mean(std::span<const double> values, std::span<const double> weights);

/// Population standard deviation with the same weights and about the same mean.
double weighted_sd(std::span<const double> values, std::span<const double> weights);

/// Percentiles (0 … 100, ascending) of values in any order, linear between order statistics; NaN where there are none.
/// Reorders the values. Costs in proportion to their number.
std::vector<double> percentiles(std::span<double> values, std::span<const double> wanted);

}  // namespace sunbreak
