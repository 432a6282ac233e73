#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace sunbreak::exchange {

using Rows = std::vector<std::vector<std::string>>;

/// Splits a table from anywhere into rows of cells (RFC 4180 quoting, any line end). Blank lines are kept as empty
/// rows, so that row numbers are those of the file. Cells are stripped of blanks at both ends.
Rows split_cells(std::string_view text, char separator);

/// Splits comma-separated text that was written with quotes around every text cell; quoted cells come back verbatim
/// and blank lines are left out.
Rows split_verbatim(std::string_view text);

/// The rows, from 0, in which any cell is filled.
std::vector<int> filled_rows(const Rows& cells);

/// The number of cells that most of these rows have; 0 of no rows.
std::size_t usual_width(const Rows& cells, const std::vector<int>& rows);

/// The separator of tab, semicolon and comma that cuts the text's lines most evenly; comma where none occurs.
char guess_separator(std::string_view text);

}  // namespace sunbreak::exchange
