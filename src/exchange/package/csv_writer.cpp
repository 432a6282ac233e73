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
  const auto first = text.find_first_not_of(" \n");
  const bool runs =
      first != std::string_view::npos && std::string_view("=+-@\t\r|").find(text[first]) != std::string_view::npos;
  return quoted_cell(runs ? "'" + std::string(text) : std::string(text));
}

std::string number_cell(double value) { return std::isnan(value) ? std::string() : fmt::format("{}", value); }

}  // namespace sunbreak::exchange
