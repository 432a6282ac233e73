#pragma once

#include <string>
#include "record/json.h"

#include "gathering/line_up_request.h"

namespace sunbreak::gathering {

/// A line-up as the command line prints it: {"way": …, "figure": …, "unit": …, "rows": […], "not_comparable": […]}.
/// Values are in the unit stored, as in figures.csv. Keys: docs/formats.md.
record::Json line_up_json(const evaluation::LineUp& lineup, const ReadyLineUp& ready, UnitSystem units);

/// The same rows as tab-separated text, as people read them: for the clipboard.
std::string line_up_table(const evaluation::LineUp& lineup, const ReadyLineUp& ready, UnitSystem units);

/// The rows as a table, first those that have a rank.
std::string line_up_csv(const evaluation::LineUp& lineup, const ReadyLineUp& ready, UnitSystem units);

}  // namespace sunbreak::gathering
