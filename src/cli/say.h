#pragma once

#include <fmt/format.h>

#include <cstdio>
#include <string>
#include <string_view>
#include <type_traits>

#include "core/visible.h"
#include "record/json.h"

/// All that the command line says goes through here. What it says may come from strangers (names in a package, cells of
/// a table, paths), and a terminal acts on what it is sent: each text that is filled in is shown on one line.
namespace sunbreak::cli {

template <typename T>
auto filled_in(const T& value) {
  if constexpr (std::is_convertible_v<const T&, std::string_view>)
    return visible_line(value);
  else
    return value;
}

template <typename... Values>
void say_to(std::FILE* stream, fmt::format_string<const Values&...> words, const Values&... values) {
  const auto format = [&](const auto&... shown) { return fmt::vformat(words, fmt::make_format_args(shown...)); };
  const std::string text = format(filled_in(values)...);
  std::fwrite(text.data(), 1, text.size(), stream);
}

/// Says what was asked for.
template <typename... Values>
void say(fmt::format_string<const Values&...> words, const Values&... values) {
  say_to<Values...>(stdout, words, values...);
}

/// Says what is not asked for: problems, notes, what was understood.
template <typename... Values>
void warn(fmt::format_string<const Values&...> words, const Values&... values) {
  say_to<Values...>(stderr, words, values...);
}

/// JSON for another program, two blanks deep; control characters that JSON lets stand are written as their numbers.
void say_json(const record::Json& value);

/// A table for another program, whose cells are shown by its writer.
void say_table(const std::string& csv);

}  // namespace sunbreak::cli
