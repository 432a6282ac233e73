#pragma once

#include <string>
#include <string_view>

namespace sunbreak {

/// With how many decimals a value and its expanded uncertainty are told (GUM 7.2.6): as usual where that gives the
/// uncertainty one or two digits that count; more where it would be told as nothing, fewer where it would have three.
/// An uncertainty that is not known, or none, leaves the usual.
int decimals_told(double expanded, int usual);

/// A value and its ± as they are told, in the same decimals; no ± where none is known. With a true minus.
struct Told {
  std::string value, expanded;
  /// "424 ± 27", or the value alone.
  std::string text() const { return expanded.empty() ? value : value + " ± " + expanded; }
  /// "± 27", or nothing.
  std::string sure() const { return expanded.empty() ? "" : "± " + expanded; }
};
Told told(double value, double expanded, int usual_decimals);

/// The same of a difference or a change: what is over zero, as told, has a "+".
Told told_difference(double value, double expanded, int usual_decimals);

/// The same in one text, with a unit behind it.
std::string uncertain_text(double value, double expanded, int usual_decimals, std::string_view unit = {});
std::string uncertain_difference(double value, double expanded, int usual_decimals, std::string_view unit = {});

}  // namespace sunbreak
