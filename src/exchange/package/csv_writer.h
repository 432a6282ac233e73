#pragma once

#include <string>
#include <string_view>

namespace sunbreak::exchange {

/// A text cell between quotes, verbatim: what split_verbatim() gives back unchanged.
std::string quoted_cell(std::string_view text);

/// A text cell for a file that people open in a spreadsheet or print on a terminal: on one line, with what is not seen
/// shown or dropped (core/visible.h); one that would run as a formula gets an apostrophe in front.
std::string spreadsheet_cell(std::string_view text);

/// The shortest text that reads back as the same double; empty for NaN.
std::string number_cell(double value);

}  // namespace sunbreak::exchange
