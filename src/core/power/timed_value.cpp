#include "core/power/timed_value.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {

std::vector<Block> blocks_of(std::span<const TimedValue> log, double block_s) {
  std::vector<Block> blocks;
  if (log.empty()) return blocks;
  const double end_s = log.back().time_s;
  long current = -1;
  for (auto v = log.rbegin(); v != log.rend(); ++v) {
    if (!std::isfinite(v->value) || !std::isfinite(v->time_s)) continue;
    const long index = std::lround(std::floor((end_s - v->time_s) / block_s));
    if (index != current) blocks.push_back({}), current = index;
    Block& b = blocks.back();
    ++b.count;
    b.time_s += (v->time_s - b.time_s) / b.count;
    b.mean += (v->value - b.mean) / b.count;
  }
  std::reverse(blocks.begin(), blocks.end());
  return blocks;
}

}  // namespace sunbreak
