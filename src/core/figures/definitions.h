#pragma once

#include <span>
#include <string_view>

#include "core/quantity/display.h"

namespace sunbreak {

/// How one figure is named, what it means and how it is worked out, in the words shown beside it everywhere.
struct FigureDefinition {
  std::string_view id, label, unit, meaning, formula;
  std::string_view depends_on;  ///< what of the plan and the record it changes with
};

/// Every published figure, in the order they are shown.
std::span<const FigureDefinition> figure_definitions();

/// What a figure is multiplied by where it is shown: fractions that read as percent, densities and places in the units
/// people read.
double shown_per_stored(std::string_view id, UnitSystem units);

/// The definition with that id; the id is one of the table's.
const FigureDefinition& figure_definition(std::string_view id);

}  // namespace sunbreak
