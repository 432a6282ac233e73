#pragma once

#include <string>
#include <string_view>

namespace sunbreak {

/// A text as it stands between tags or in a quoted attribute of XML and HTML.
inline std::string markup_text(std::string_view words) {
  std::string out;
  for (const char c : words) switch (c) {
      case '&':
        out += "&amp;";
        break;
      case '<':
        out += "&lt;";
        break;
      case '>':
        out += "&gt;";
        break;
      case '"':
        out += "&quot;";
        break;
      default:
        out += c;
    }
  return out;
}

}  // namespace sunbreak
