#pragma once

#include <cstddef>

namespace sunbreak {

struct Counted {
  int at_least_low = 0, above_high = 0;
};
/// How many of values + share · others are at or above `low`, and how many above `high`.
Counted count_in_sum(const float* values, const float* others, float share, std::size_t count, float low, float high);

/// Lowest and highest of values + share · others.
struct Extremes {
  float lowest, highest;
};
Extremes extremes_of_sum(const float* values, const float* others, float share, std::size_t count);

}  // namespace sunbreak
