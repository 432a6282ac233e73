#include "core/quantity/number.h"

#include <algorithm>

#include <charconv>
#include <cmath>
#include <string>

namespace sunbreak {

std::string_view trimmed(std::string_view text) {
  constexpr std::string_view blanks = " \t\r\n";
  const auto first = text.find_first_not_of(blanks);
  if (first == std::string_view::npos) return {};
  return text.substr(first, text.find_last_not_of(blanks) - first + 1);
}

std::optional<double> parse_number(std::string_view text, char decimal_mark) {
  text = trimmed(text);
  if (text.starts_with('+')) {
    text.remove_prefix(1);
    if (text.starts_with('-') || text.starts_with('+')) return {};
  }
  std::string plain(text);
  for (char& c : plain) {
    if (c == decimal_mark)
      c = '.';
    else if (c == '.')
      return {};
    else if (!((c >= '0' && c <= '9') || c == '-' || c == '+' || c == 'e' || c == 'E'))
      return {};
  }
  double value = 0;
  const auto [end, error] = std::from_chars(plain.data(), plain.data() + plain.size(), value);
  if (error != std::errc{} || end != plain.data() + plain.size() || !std::isfinite(value)) return {};
  return value;
}

int decimals_of(std::string_view text) {
  const auto first = text.find_first_of("0123456789");
  if (first == std::string_view::npos) return 0;
  const auto point = text.find_first_not_of("0123456789", first);
  if (point == std::string_view::npos || text[point] != '.') return 0;
  const auto end = std::min(text.find_first_not_of("0123456789", point + 1), text.size());
  return static_cast<int>(end - point - 1);
}

double rounded_to(double value, int decimals) {
  const double scale = std::pow(10.0, decimals), scaled = std::round(value * scale);
  return std::isfinite(scaled) ? scaled / scale : value;
}

}  // namespace sunbreak
