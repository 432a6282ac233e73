#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/check.h"

namespace sunbreak {

/// The same value typed too many times running, in walk order: five or more.
std::vector<Check> repeat_checks(const Layout& layout, std::span<const double> raw);

/// A row equal to the row before, station by station; rows of four or more.
std::vector<Check> equal_row_checks(const Layout& layout, std::span<const double> raw);

/// Raw values above the sensor's range or clearly under zero.
std::vector<Check> range_checks(std::span<const double> raw, std::optional<double> range_max);

/// All checks of one sweep while it is walked and after. `raw` and `ppfd` hold one value a station, NaN where unread.
/// Balance is judged once nine in ten stations are read.
std::vector<Check> walk_checks(const Layout& layout, std::span<const double> raw, std::span<const double> ppfd,
                               std::optional<double> range_max);

}  // namespace sunbreak
