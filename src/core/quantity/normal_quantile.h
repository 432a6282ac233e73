#pragma once

#include <cmath>

namespace sunbreak {

/// Where a normal deviate of mean 0 and standard deviation 1 lies below with a chance of `share` (0 … 1, ends
/// excluded), by halving.
inline double normal_quantile(double share) {
  double low = -9, high = 9;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + high) / 2;
    (0.5 * std::erfc(-middle / std::sqrt(2.0)) < share ? low : high) = middle;
  }
  return (low + high) / 2;
}

}  // namespace sunbreak
