#pragma once

#include <CLI/CLI.hpp>

#include <optional>
#include <string>
#include <type_traits>
#include <vector>

#include "core/bench/footprint.h"
#include "core/quantity/quantity_range.h"
#include "core/sweep/cut.h"
#include "record/kinds.h"

/// What options take. Of numbers, CLI11 itself would read "nan", "inf", hexadecimal and what is beyond any range; here
/// each option says what it stands for, and what cannot be is refused before the command runs (status 2).
namespace sunbreak::cli {

/// An option that takes words: a name, a path, one of a list, or several of them.
template <typename Words>
CLI::Option* add_text(CLI::App& command, const std::string& name, Words& into, const std::string& help) {
  static_assert(std::is_same_v<Words, std::string> || std::is_same_v<Words, std::optional<std::string>> ||
                std::is_same_v<Words, std::vector<std::string>>);
  return command.add_option(name, into, help);
}

/// The quantity that a column of the record holds: its unit and ends are the column's.
QuantityRange recorded(const record::Column& column, std::string what);
template <typename Record>
QuantityRange recorded(std::string_view column, std::string what) {
  return recorded(*record::kind_of<Record>().column(column), std::move(what));
}

/// `range` without its lowest end.
QuantityRange over_least(QuantityRange range);

/// An option that takes a number, with the unit of its range behind it or without.
CLI::Option* add_number(CLI::App& command, const std::string& name, std::optional<double>& into, QuantityRange range,
                        const std::string& help);
CLI::Option* add_number(CLI::App& command, const std::string& name, double& into, QuantityRange range,
                        const std::string& help);
CLI::Option* add_count(CLI::App& command, const std::string& name, int& into, QuantityRange range,
                       const std::string& help);

/// An option that takes a length with its unit; meters.
CLI::Option* add_length(CLI::App& command, const std::string& name, std::optional<double>& into_m, QuantityRange range,
                        const std::string& help);

/// An option that takes width x depth with a unit, each within the range.
CLI::Option* add_size(CLI::App& command, const std::string& name, std::optional<Footprint>& into, QuantityRange range,
                      const std::string& help);

/// The same, or one length for both.
CLI::Option* add_spacing(CLI::App& command, const std::string& name, std::optional<Footprint>& into,
                         QuantityRange range, const std::string& help);

struct Cells {
  int columns = 0, rows = 0;
};

/// An option that takes columns x rows, such as 8x8, each within the range.
CLI::Option* add_cells(CLI::App& command, const std::string& name, std::optional<Cells>& into, QuantityRange range,
                       const std::string& help);

struct Line {
  Place from, to;
};

/// An option that takes a line's two ends, as x1,y1,x2,y2 in centimeters from the front left.
CLI::Option* add_line(CLI::App& command, const std::string& name, std::optional<Line>& into, const std::string& help);

/// The ranges that several options have.
QuantityRange crop_ppfd(std::string what);
QuantityRange daily_light();
QuantityRange photoperiod();
QuantityRange hanging_height();
QuantityRange dimmer_setting();
QuantityRange wall_watts();
QuantityRange room_side();
QuantityRange threads();

}  // namespace sunbreak::cli
