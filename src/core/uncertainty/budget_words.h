#pragma once

#include <array>
#include <string>
#include <string_view>

#include "core/quantity/display.h"
#include "core/uncertainty/budget.h"

namespace sunbreak {

/// The figures that a printed budget has a column for: the mean, efficacy, and the one that leads among those of
/// evenness.
std::array<std::string_view, 3> budget_columns(std::string_view evenness_lead);

/// "5.0 mm", "0.20 in" or "2.50 %"; empty where the contribution has no size of its own.
std::string size_words(const Contribution& c, UnitSystem units);

/// "measured: from 10 stations read again", "stated for the loft sensor", "assumed: usual for a tape and care".
std::string origin_words(const InputQuantity& term);

/// How many of a budget's parts have a size that is assumed, neither stated nor measured.
int assumed_parts(const Budget& budget);

/// The parts of a budget whose size is assumed, neither stated nor measured: "sensor calibration, height"; empty where
/// there is none.
std::string assumed_words(const Budget& budget);

/// A part of a figure in percent of it; a dash where the figure is unknown or 0.
std::string share_words(double part, double figure);

/// What an expanded uncertainty is made of, for the last line of a table of its parts.
inline constexpr std::string_view expanded_words =
    "twice the quadratic sum, more where a part is known from few readings, plus the pull";

}  // namespace sunbreak
