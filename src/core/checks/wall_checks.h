#pragma once

#include <optional>
#include <vector>

#include "core/checks/finding.h"

namespace sunbreak {

/// Mains of a household or a workshop, anywhere.
inline constexpr double least_mains_v = 80, most_mains_v = 300, least_mains_hz = 45, most_mains_hz = 65;

/// What a wall-plug meter shows; each where it shows it.
struct WallSample {
  std::optional<double> volts, amperes, watts, volt_amperes, power_factor, hertz;
  bool operator==(const WallSample&) const = default;
};

/// What cannot be between the numbers of one meter: a power factor over 1, watts over volts times amperes (by more than
/// 1 %, since meters round), watts over volt-amperes unlike the power factor by more than 2 %, watts unlike the product
/// of volts, amperes and power factor by more than 5 %, mains that no socket has.
std::vector<Finding> wall_checks(const WallSample& sample);

}  // namespace sunbreak
