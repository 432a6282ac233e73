#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/length.h"

namespace sunbreak::exchange {

/// The rows of one sweep out of a table that says height or dimmer setting in each row, with the table's own titles.
struct SweepPart {
  std::optional<double> height_m, percent;  ///< none where its rows name no number there
  std::string text;

  /// What the part is called; sweep_named() finds height and setting in it again.
  std::string name() const;
};

/// Cuts a table with places, readings and columns of height or dimmer setting in each row into its sweeps, in the order
/// they come. Heights are in the unit that their title names, or else in `bare_unit`. Empty where the table has no such
/// columns: then it is of one sweep.
std::vector<SweepPart> split_sweeps(std::string_view bytes, LengthUnit bare_unit);

}  // namespace sunbreak::exchange
