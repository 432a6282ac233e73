#include "core/settle/settle_kernel.h"

#include <limits>

// Compiled with -O3, so that these loops run on vectors.
namespace sunbreak {

Counted count_in_sum(const float* values, const float* others, float share, std::size_t count, float low, float high) {
  int at_least = 0, above = 0;
  for (std::size_t i = 0; i < count; ++i) {
    const float value = values[i] + share * others[i];
    at_least += value >= low;
    above += value > high;
  }
  return {at_least, above};
}

Extremes extremes_of_sum(const float* values, const float* others, float share, std::size_t count) {
  Extremes e{std::numeric_limits<float>::max(), std::numeric_limits<float>::lowest()};
  for (std::size_t i = 0; i < count; ++i) {
    const float value = values[i] + share * others[i];
    e.lowest = value < e.lowest ? value : e.lowest;
    e.highest = value > e.highest ? value : e.highest;
  }
  return e;
}

}  // namespace sunbreak
