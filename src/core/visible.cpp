#include "core/visible.h"

namespace sunbreak {
namespace {

/// How many bytes of a mark of direction (U+061C, U+200E, U+200F, U+202A to U+202E, U+2066 to U+2069) begin here.
std::size_t direction_mark(const std::string& text, std::size_t at) {
  const auto byte = [&](std::size_t i) { return at + i < text.size() ? static_cast<unsigned char>(text[at + i]) : 0; };
  if (byte(0) == 0xD8 && byte(1) == 0x9C) return 2;
  if (byte(0) != 0xE2) return 0;
  if (byte(1) == 0x80 && (byte(2) == 0x8E || byte(2) == 0x8F || (byte(2) >= 0xAA && byte(2) <= 0xAE))) return 3;
  return byte(1) == 0x81 && byte(2) >= 0xA6 && byte(2) <= 0xA9 ? 3 : 0;
}

}  // namespace

std::string visible(const std::string& utf8) {
  std::string out;
  out.reserve(utf8.size());
  for (std::size_t i = 0; i < utf8.size();) {
    if (const std::size_t mark = direction_mark(utf8, i); mark > 0) {
      i += mark;
      continue;
    }
    const auto c = static_cast<unsigned char>(utf8[i++]);
    if ((c < 0x20 && c != '\t' && c != '\n' && c != '\r') || c == 0x7F)
      (out += "\xE2\x90") += static_cast<char>(c == 0x7F ? 0xA1 : 0x80 + c);  // the symbols of U+2400
    else
      out += static_cast<char>(c);
  }
  return out;
}

}  // namespace sunbreak
