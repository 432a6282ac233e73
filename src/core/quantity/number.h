#pragma once

#include <optional>
#include <string_view>

namespace sunbreak {

/// Strips blanks (space, tab, CR, LF) from both ends.
std::string_view trimmed(std::string_view text);

/// How many decimals the first number in a text is written with.
int decimals_of(std::string_view text);

/// Reads the whole of `text` as one finite number, or nothing. The sign and an exponent may be there; no locale, no
/// hex.
std::optional<double> parse_number(std::string_view text, char decimal_mark = '.');

/// The value nearest to one with so many decimals: 0.05, where arithmetic made 0.049999999999999996 of it.
double rounded_to(double value, int decimals);

}  // namespace sunbreak
