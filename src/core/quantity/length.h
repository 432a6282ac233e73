#pragma once

#include <string>
#include <string_view>

#include "core/result.h"

namespace sunbreak {

enum class LengthUnit { Meter, Centimeter, Millimeter, Inch, Foot };

/// Meters in one of the unit. Inches and feet are the international ones (1 in = 25.4 mm exactly).
constexpr double meters_per(LengthUnit unit) {
  switch (unit) {
    case LengthUnit::Meter:
      return 1.0;
    case LengthUnit::Centimeter:
      return 0.01;
    case LengthUnit::Millimeter:
      return 0.001;
    case LengthUnit::Inch:
      return 0.0254;
    case LengthUnit::Foot:
      return 0.3048;
  }
  return 1.0;
}

constexpr double to_m(double value, LengthUnit unit) { return value * meters_per(unit); }
constexpr double from_m(double value_m, LengthUnit unit) { return value_m / meters_per(unit); }

/// "m", "cm", "mm", "in" or "ft".
std::string_view symbol(LengthUnit unit);

/// Reads a unit's symbol or its usual English spelling, in any case.
Result<LengthUnit> parse_length_unit(std::string_view text);

/// Reads a length with its unit, such as "45cm", "1.2 m" or "18 in"; meters. A bare number is refused.
Result<double> parse_length_m(std::string_view text);

constexpr double square_feet(double area_m2) { return area_m2 / (0.3048 * 0.3048); }

}  // namespace sunbreak
