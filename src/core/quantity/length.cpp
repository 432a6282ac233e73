#include "core/quantity/length.h"

#include <array>
#include <cctype>
#include <utility>

#include "core/quantity/number.h"

namespace sunbreak {

std::string_view symbol(LengthUnit unit) {
  switch (unit) {
    case LengthUnit::Meter:
      return "m";
    case LengthUnit::Centimeter:
      return "cm";
    case LengthUnit::Millimeter:
      return "mm";
    case LengthUnit::Inch:
      return "in";
    case LengthUnit::Foot:
      return "ft";
  }
  return "m";
}

Result<LengthUnit> parse_length_unit(std::string_view text) {
  using enum LengthUnit;
  static constexpr std::array<std::pair<std::string_view, LengthUnit>, 17> spellings{{{"m", Meter},
                                                                                      {"meter", Meter},
                                                                                      {"meters", Meter},
                                                                                      {"metre", Meter},
                                                                                      {"metres", Meter},
                                                                                      {"cm", Centimeter},
                                                                                      {"centimeter", Centimeter},
                                                                                      {"centimeters", Centimeter},
                                                                                      {"mm", Millimeter},
                                                                                      {"millimeter", Millimeter},
                                                                                      {"millimeters", Millimeter},
                                                                                      {"in", Inch},
                                                                                      {"inch", Inch},
                                                                                      {"inches", Inch},
                                                                                      {"ft", Foot},
                                                                                      {"foot", Foot},
                                                                                      {"feet", Foot}}};
  std::string lower;
  for (char c : trimmed(text)) lower += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  for (const auto& [spelling, unit] : spellings)
    if (lower == spelling) return unit;
  return Problem{"'" + std::string(text) + "' is not a unit of length", "", "use m, cm, mm, in or ft"};
}

Result<double> parse_length_m(std::string_view text) {
  text = trimmed(text);
  const auto unit_at = text.find_first_not_of("0123456789.+-eE ");
  const auto number = unit_at == std::string_view::npos ? std::nullopt : parse_number(text.substr(0, unit_at));
  if (!number)
    return Problem{"'" + std::string(text) + "' is not a length with its unit", "", "write it like 45cm, 1.2m or 18in"};
  const auto unit = parse_length_unit(text.substr(unit_at));
  if (!unit) return unit.problem();
  return to_m(*number, unit.value());
}

}  // namespace sunbreak
