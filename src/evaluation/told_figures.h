#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "evaluation/evaluation.h"

namespace sunbreak::evaluation {

/// A figure of a sweep as it is told to readers.
struct ToldFigure {
  std::string_view id;
  std::string label;  ///< with ", estimated" where most of the sweep was not read, and that stands in its place
  std::string unit;   ///< of what is shown; empty for shares and ratios that have none
  std::string value;  ///< without the unit
  std::string sure;   ///< "± 39"; empty where that is not known

  std::string value_with_unit() const { return unit.empty() ? value : value + " " + unit; }
};

/// Some figures of a sweep with their ± (k = 2), by their ids; those that it has not got are left out. Of a sweep that
/// was read in part what all of it would give, or nothing where that is not known.
std::vector<ToldFigure> told_figures(const Evaluation& evaluation, Id sweep_id, std::span<const std::string_view> ids,
                                     UnitSystem units);

}  // namespace sunbreak::evaluation
