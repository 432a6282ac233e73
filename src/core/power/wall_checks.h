#pragma once

#include <optional>
#include <vector>

#include "core/checks/finding.h"

namespace sunbreak {

/// What a wall-plug meter shows; each where it shows it.
struct WallSample {
  std::optional<double> volts, amperes, watts, volt_amperes, power_factor, hertz;
};

/// What cannot be between the numbers of one meter: a power factor over 1, watts over volts times amperes (by more than
/// 1 %, since meters round), watts over volt-amperes unlike the power factor by more than 2 %.
std::vector<Finding> wall_checks(const WallSample& sample);

}  // namespace sunbreak
