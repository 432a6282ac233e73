#pragma once

#include <string_view>
#include <vector>

#include "core/power/dimming_curve.h"
#include "core/result.h"
#include "exchange/tables/sweep_table.h"

namespace sunbreak::exchange {

/// A stair as a table has it.
struct StairDraft {
  std::vector<StairStep> steps;
  std::vector<Finding> findings;
};

/// Reads a table of a dimmer's stair: a header row, then one row a setting in the order they were read. A column dial
/// (or dimmer, setting, percent) [%], any of watts and power factor, and one column of light a station (each named
/// ppfd… or light…). What is no number in range is left out and said. A Problem where no row has a dial.
Result<StairDraft> read_stair_table(std::string_view bytes);

}  // namespace sunbreak::exchange
