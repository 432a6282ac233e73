#pragma once

#include <span>
#include <vector>

namespace sunbreak {

/// A value of a log: light at the reference station, or watts.
struct TimedValue {
  double time_s = 0;  ///< on any clock, the same for the whole log; rising
  double value = 0;
};

/// The mean of the values of one stretch of a log.
struct Block {
  double time_s = 0;  ///< mean time of its values
  double mean = 0;
  int count = 0;
};

/// Means over equal stretches of `block_s` counted back from the last value; stretches without a value are left out.
/// Oldest first.
std::vector<Block> blocks_of(std::span<const TimedValue> log, double block_s);

}  // namespace sunbreak
