#include "core/checks/stuck_checks.h"

#include <fmt/format.h>

namespace sunbreak {
namespace {
constexpr int fewest_samples = 3;
}

std::vector<Finding> stuck_checks(std::span<const SampledReading> readings) {
  std::vector<int> still;
  int alive = 0;
  for (std::size_t i = 0; i < readings.size(); ++i) {
    if (readings[i].samples < fewest_samples || !readings[i].spread) continue;
    if (*readings[i].spread > 0)
      ++alive;
    else
      still.push_back(static_cast<int>(i));
  }
  if (still.empty() || alive <= static_cast<int>(still.size())) return {};
  return {{"sensor stuck", Severity::Bad, still,
           fmt::format("the sensor did not move at all at {} station{}, though it does elsewhere", still.size(),
                       still.size() == 1 ? "" : "s"),
           "what it showed there may be an old value", "check the sensor and its line, then read there again"}};
}

}  // namespace sunbreak
