#pragma once

#include <string>
#include <string_view>

namespace sunbreak {

/// A text without what cannot be seen in it but changes how it reads: control characters are shown as their symbols
/// (NUL as ␀), those of the upper range (U+0080 to U+009F) and what is no character (U+FFFE, U+FFFF) as U+FFFD, and
/// marks that turn the direction of text are dropped. Tabs and line ends stay.
std::string visible(std::string_view utf8);

/// The same on one line, for a terminal, a row or a title: tabs and line ends are shown as symbols, too.
std::string visible_line(std::string_view utf8);

/// JSON with the control characters that it lets stand, and marks that turn the direction of text, written as \uXXXX:
/// the same values, and nothing that a terminal acts on.
std::string json_for_terminal(std::string_view json);

/// Where a text begins for a program that skips what is not seen: past blanks, line ends, marks of direction, joiners
/// and spaces of no width [bytes].
std::size_t first_seen(std::string_view utf8);

}  // namespace sunbreak
