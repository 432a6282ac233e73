#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/checks/finding.h"

namespace sunbreak {

/// What is known of the sensor values that one reading was averaged from.
struct SampledReading {
  int samples = 0;  ///< 0: not read
  std::optional<double> spread;
};

/// Readings of three samples or more that did not differ at all, where most of the others' did: the sensor repeats its
/// last value instead of measuring.
std::vector<Finding> stuck_checks(std::span<const SampledReading> readings);

}  // namespace sunbreak
