#pragma once

#include <span>
#include <vector>

namespace sunbreak {

/// Σ w·v / Σ w over values that are not NaN; NaN where there are none.
double weighted_mean(std::span<const double> values, std::span<const double> weights);

/// Population standard deviation with the same weights and about the same mean.
double weighted_sd(std::span<const double> values, std::span<const double> weights);

/// The p-th percentile (0 … 100) of ascending values, linear between order statistics; NaN where there are none.
double percentile(std::span<const double> ascending, double p);

}  // namespace sunbreak
