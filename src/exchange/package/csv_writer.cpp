#include "exchange/package/csv_writer.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/visible.h"

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
  // A spreadsheet may split at semicolons instead, wherever they stand: each part is defused. It reads a sign of full
  // width as the usual one, and skips what is not seen before it.
  constexpr std::string_view begins_formula[] = {"=", "+", "-", "@", "|", "\uFF1D", "\uFF0B", "\uFF0D", "\uFF20"};
  const std::string line = visible_line(text);
  std::string safe;
  for (std::string_view rest = line; !rest.empty();) {
    const std::string_view part = rest.substr(0, rest.find(';')), unseen = part.substr(0, first_seen(part)),
                           seen = part.substr(unseen.size());
    safe += unseen;
    if (std::ranges::any_of(begins_formula, [&](std::string_view sign) { return seen.starts_with(sign); }))
      safe += '\'';
    (safe += seen) += part.size() < rest.size() ? ";" : "";
    rest.remove_prefix(std::min(part.size() + 1, rest.size()));
  }
  return quoted_cell(safe);
}

std::string number_cell(double value) { return std::isnan(value) ? std::string() : fmt::format("{}", value); }

}  // namespace sunbreak::exchange
