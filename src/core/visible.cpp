#include "core/visible.h"

#include <fmt/format.h>

#include <cstdint>

namespace sunbreak {
namespace {

struct Character {
  std::uint32_t code = 0;
  std::size_t bytes = 1;
};

/// The character that begins at a place; a byte that begins none stands for itself, as a character beyond Unicode.
Character character_at(std::string_view text, std::size_t at) {
  const auto byte = [&](std::size_t i) { return static_cast<unsigned char>(text[at + i]); };
  constexpr std::uint32_t beyond_unicode = 0x110000;
  const unsigned first = byte(0);
  if (first < 0x80) return {first, 1};
  const std::size_t bytes = first >= 0xF0 ? 4 : first >= 0xE0 ? 3 : 2;
  if (first < 0xC2 || first > 0xF4 || at + bytes > text.size()) return {beyond_unicode, 1};
  std::uint32_t code = first & (0x7Fu >> bytes);
  for (std::size_t i = 1; i < bytes; ++i) {
    if ((byte(i) & 0xC0) != 0x80) return {beyond_unicode, 1};
    code = code << 6 | (byte(i) & 0x3Fu);
  }
  return {code, bytes};
}

bool turns_direction(std::uint32_t c) {
  return c == 0x061C || c == 0x200E || c == 0x200F || (c >= 0x202A && c <= 0x202E) || (c >= 0x2066 && c <= 0x2069);
}

/// Blanks, line ends and what has no width.
bool is_unseen(std::uint32_t c) {
  return c == ' ' || c == '\t' || c == '\n' || c == '\r' || c < 0x20 || (c >= 0x7F && c <= 0xA0) || c == 0xAD ||
         turns_direction(c) || (c >= 0x2000 && c <= 0x200D) || c == 0x2028 || c == 0x2029 || c == 0x202F ||
         (c >= 0x205F && c <= 0x2064) || c == 0x3000 || c == 0x180E || c == 0xFEFF;
}

std::string with_symbols(std::string_view utf8, bool on_one_line) {
  std::string out;
  out.reserve(utf8.size());
  for (std::size_t at = 0; at < utf8.size();) {
    const auto [c, bytes] = character_at(utf8, at);
    const std::string_view as_it_stands = utf8.substr(at, bytes);
    at += bytes;
    const bool lays_out = c == '\t' || c == '\n' || c == '\r';
    const bool breaks_line = c == 0x2028 || c == 0x2029;
    if (turns_direction(c)) continue;
    if ((c < 0x20 && (on_one_line || !lays_out)) || c == 0x7F)
      (out += "\xE2\x90") += static_cast<char>(c == 0x7F ? 0xA1 : 0x80 + c);  // the symbols of U+2400
    else if ((c >= 0x80 && c <= 0x9F) || c == 0xFFFE || c == 0xFFFF || (on_one_line && breaks_line))
      out += "\uFFFD";
    else
      out += as_it_stands;
  }
  return out;
}

}  // namespace

std::string visible(std::string_view utf8) { return with_symbols(utf8, false); }

std::string visible_line(std::string_view utf8) { return with_symbols(utf8, true); }

std::string json_for_terminal(std::string_view json) {
  std::string out;
  out.reserve(json.size());
  for (std::size_t at = 0; at < json.size();) {
    const auto [c, bytes] = character_at(json, at);
    if (turns_direction(c) || (c >= 0x7F && c <= 0x9F))
      out += fmt::format("\\u{:04x}", c);
    else
      out += json.substr(at, bytes);
    at += bytes;
  }
  return out;
}

std::size_t first_seen(std::string_view utf8) {
  std::size_t at = 0;
  while (at < utf8.size()) {
    const auto [c, bytes] = character_at(utf8, at);
    if (!is_unseen(c)) break;
    at += bytes;
  }
  return at;
}

}  // namespace sunbreak
