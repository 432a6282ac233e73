#include "core/text/natural_order.h"

#include <algorithm>

#include "core/quantity/lower_case.h"

namespace sunbreak {
namespace {

bool is_digit(char c) { return c >= '0' && c <= '9'; }

/// The number that a text begins with, without its leading zeros; the text goes on behind it.
std::string_view take_number(std::string_view& text) {
  const auto end = static_cast<std::size_t>(std::ranges::find_if_not(text, is_digit) - text.begin());
  std::string_view number = text.substr(0, end);
  text.remove_prefix(end);
  number.remove_prefix(std::min(number.find_first_not_of('0'), number.size()));
  return number;
}

}  // namespace

bool natural_before(std::string_view a, std::string_view b) {
  while (!a.empty() && !b.empty()) {
    if (is_digit(a.front()) && is_digit(b.front())) {
      const std::string_view m = take_number(a), n = take_number(b);
      if (m.size() != n.size()) return m.size() < n.size();
      if (m != n) return m < n;
    } else {
      const auto x = static_cast<unsigned char>(lower_case(a.front()));
      const auto y = static_cast<unsigned char>(lower_case(b.front()));
      if (x != y) return x < y;
      a.remove_prefix(1), b.remove_prefix(1);
    }
  }
  return a.size() < b.size();
}

}  // namespace sunbreak
