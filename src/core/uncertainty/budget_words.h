#pragma once

#include <span>
#include <string>
#include <string_view>

#include "core/uncertainty/budget.h"

namespace sunbreak {

/// The figures that a printed budget has a column for.
std::span<const std::string_view> budget_columns();

/// "5.0 mm" or "2.50 %"; empty where the contribution has no size of its own.
std::string size_words(const Contribution& c);

/// "measured: from 10 stations read again", "stated for QS-1", "assumed: usual for a tape and care".
std::string origin_words(const InputQuantity& term);

/// A part of a figure in percent of it; a dash where the figure is unknown or 0.
std::string share_words(double part, double figure);

}  // namespace sunbreak
