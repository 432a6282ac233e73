#pragma once

#include <string>
#include <string_view>

namespace sunbreak {

/// A text with its ASCII letters in lower case; all others stay.
inline std::string lower_case(std::string_view text) {
  std::string lower(text);
  for (char& c : lower)
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  return lower;
}

}  // namespace sunbreak
