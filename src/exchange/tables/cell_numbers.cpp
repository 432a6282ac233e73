#include "exchange/tables/cell_numbers.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdlib>

#include "core/limits/light_limits.h"
#include "core/quantity/lux.h"
#include "core/quantity/number.h"

namespace sunbreak::exchange {
namespace {

/// "1.234": one to three digits, the mark, three digits.
bool like_thousands(std::string_view cell, char mark) {
  cell = trimmed(cell);
  const auto at = cell.find(mark);
  if (at == std::string_view::npos || at == 0 || at > 3 || cell.size() - at != 4 || cell[0] == '0') return false;
  return parse_number(cell, mark).has_value();
}

}  // namespace

char guess_decimal_mark(const Rows& cells) {
  int point = 0, comma = 0;
  for (const auto& row : cells)
    for (const std::string& cell : row) {
      point += cell.find('.') != std::string::npos && parse_number(cell, '.').has_value();
      comma += cell.find(',') != std::string::npos && parse_number(cell, ',').has_value();
    }
  return comma > point ? ',' : '.';
}

NumberRule number_rule(const Rows& cells, char decimal_mark, bool chosen) {
  NumberRule rule{decimal_mark, false, {}};
  if (chosen) return rule;
  int doubtful = 0, whole = 0, other = 0;
  for (const auto& row : cells)
    for (const std::string& cell : row) {
      if (!parse_number(cell, decimal_mark)) continue;
      if (like_thousands(cell, decimal_mark)) {
        ++doubtful;
        rule.doubtful_example = cell;
      } else if (cell.find(decimal_mark) == std::string::npos) {
        ++whole;
      } else {
        ++other;
      }
    }
  rule.doubtful_thousands = doubtful > 0 && whole > 0 && other == 0;
  return rule;
}

std::optional<double> cell_number(std::string_view cell, const NumberRule& rule) {
  if (rule.doubtful_thousands && like_thousands(cell, rule.decimal_mark)) return {};
  return parse_number(cell, rule.decimal_mark);
}

namespace {
/// Infinity, the sign for no number at all, and numbers that no machine holds.
bool names_no_finite(std::string_view cell) {
  const std::string text(cell);
  char* end = nullptr;
  const double value = std::strtod(text.c_str(), &end);
  return end == text.c_str() + text.size() && !text.empty() && !std::isfinite(value);
}
}  // namespace

CellReading cell_reading(std::string_view cell, const NumberRule& rule) {
  if (trimmed(cell).empty()) return {{}, "is empty"};
  const auto value = cell_number(cell, rule);
  const std::string shown(cell.substr(0, 40));
  if (!value)
    return {{}, fmt::format("'{}' is {}", shown, names_no_finite(trimmed(cell)) ? "no finite number" : "not a number")};
  const double lowest = rule.raw ? least_raw : least_ppfd, highest = rule.lux ? most_lux : most_ppfd;
  if (*value < lowest || *value > highest)
    return {{}, fmt::format("'{}' is outside {} to {} {}", shown, lowest, highest, rule.lux ? "lx" : "µmol/m²/s")};
  return {value, {}};
}

}  // namespace sunbreak::exchange
