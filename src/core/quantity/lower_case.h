#pragma once

#include <string>
#include <string_view>

namespace sunbreak {

/// An ASCII letter in lower case; all else stays.
constexpr char lower_case(char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; }

/// A text with its ASCII letters in lower case; all others stay.
inline std::string lower_case(std::string_view text) {
  std::string lower(text);
  for (char& c : lower) c = lower_case(c);
  return lower;
}

}  // namespace sunbreak
