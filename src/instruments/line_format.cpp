#include "instruments/line_format.h"

#include <cmath>

#include "core/quantity/number.h"

namespace sunbreak::instruments {
namespace {

constexpr double largest_plausible = 1e7;

/// The n-th cell of a line, from 1. A blank as separator stands for any number of them.
std::optional<std::string_view> cell(std::string_view line, char separator, int number) {
  line = trimmed(line);
  for (int at = 1;; ++at) {
    const auto end = line.find(separator);
    if (at == number) return trimmed(line.substr(0, end));
    if (end == std::string_view::npos) return {};
    line.remove_prefix(end + 1);
    if (separator == ' ') line = trimmed(line);
  }
}

}  // namespace

std::optional<double> value_in(std::string_view line, const LineFormat& format) {
  const auto text = cell(line, format.separator, format.column);
  const auto number = text ? parse_number(*text, format.decimal_mark) : std::nullopt;
  if (!number || std::abs(*number) > largest_plausible) return {};
  return *number * format.factor;
}

std::optional<WallValues> wall_values_in(std::string_view line) {
  double values[6];
  for (int i = 0; i < 6; ++i) {
    const auto value = value_in(line, {',', i + 1, 1, '.'});
    if (!value) return {};
    values[i] = *value;
  }
  if (cell(line, ',', 7)) return {};
  return WallValues{values[0], values[1], values[2], values[3], values[4], values[5]};
}

}  // namespace sunbreak::instruments
