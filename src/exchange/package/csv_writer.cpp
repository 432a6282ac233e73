#include "exchange/package/csv_writer.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak::exchange {

std::string quoted_cell(std::string_view text) {
  std::string cell = "\"";
  for (const char c : text) {
    if (c == '"') cell += '"';
    cell += c;
  }
  return cell + '"';
}

std::string spreadsheet_cell(std::string_view text) {
  // A spreadsheet may split at semicolons, tabs or lines instead, wherever they stand: each part is defused.
  std::string safe;
  bool at_start = true;
  for (const char c : text) {
    if (at_start && std::string_view("=+-@\t\r|").find(c) != std::string_view::npos) safe += '\'';
    at_start = c == ';' || c == '\n' || c == '\r' || c == '\t' || (at_start && c == ' ');
    safe += c;
  }
  return quoted_cell(safe);
}

std::string number_cell(double value) { return std::isnan(value) ? std::string() : fmt::format("{}", value); }

}  // namespace sunbreak::exchange
