#pragma once

#include <optional>
#include <string_view>

#include "core/quantity/length.h"

namespace sunbreak::exchange {

/// Which cell of a test's lattice a table belongs to, as its name or its head says.
struct SweepName {
  std::optional<double> height_m;
  std::optional<double> percent;
  bool unit_assumed = false;  ///< the height named no unit
};

/// Reads height and dimmer setting from a file's name ("bars_45cm_100pct.csv", "h30-dim60") and, where that says
/// nothing, from the lines of the table's head that name them ("Height: 45 cm", "dimmer 75 %"). A height without a unit
/// is in `bare_unit`. Sizes such as 120x120cm are no heights.
SweepName sweep_named(std::string_view file_name, std::string_view table, LengthUnit bare_unit);

}  // namespace sunbreak::exchange
