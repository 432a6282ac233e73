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

/// The copies of the two for one kind of processor each, chosen from by the functions above at run time.
struct SettleKernels {
  Counted (*count_in_sum)(const float*, const float*, float, std::size_t, float, float);
  Extremes (*extremes_of_sum)(const float*, const float*, float, std::size_t);
};
extern const SettleKernels plain_settle_kernels;
#if defined(__x86_64__)
extern const SettleKernels wide_settle_kernels;    ///< vectors of 256 bits
extern const SettleKernels widest_settle_kernels;  ///< of 512 bits
#endif

}  // namespace sunbreak
