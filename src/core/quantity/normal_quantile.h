#pragma once

#include <cmath>

namespace sunbreak {

/// Share of the normal distribution that lies below so many standard deviations.
inline double normal_share_below(double deviations) { return 0.5 * std::erfc(-deviations / std::sqrt(2.0)); }

/// Where a normal deviate of mean 0 and standard deviation 1 lies below with a chance of `share` (0 … 1, ends
/// excluded), by halving.
inline double normal_quantile(double share) {
  double low = -9, high = 9;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + high) / 2;
    (normal_share_below(middle) < share ? low : high) = middle;
  }
  return (low + high) / 2;
}

}  // namespace sunbreak
