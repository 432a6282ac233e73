#pragma once

#include <string>
#include <string_view>

#include "core/quantity/length.h"

namespace sunbreak {

/// What people read and type lengths and areas in. Everything inside stays metric.
enum class UnitSystem { Metric, Imperial };

constexpr LengthUnit surface_unit(UnitSystem system) {
  return system == UnitSystem::Metric ? LengthUnit::Centimeter : LengthUnit::Inch;
}

/// A number with up to `decimals` decimals, trailing zeros cut: 45, 17.7.
std::string short_number(double value, int decimals);

/// "45 cm" or "17.7 in".
std::string length_text(double length_m, UnitSystem system);

/// "120 × 60 cm" or "47.2 × 23.6 in".
std::string size_text(double width_m, double depth_m, UnitSystem system);

/// "0.64 m²" or "6.9 ft²".
std::string area_text(double area_m2, UnitSystem system);

/// PPFD to three or four figures, as testers write it: 424, 38.2.
std::string ppfd_text(double ppfd);

/// A share in whole percent: "34 %".
std::string share_text(double share);

/// A chance in percent: "73 %"; "under 1 %" and "over 99 %" of what may yet be or fail.
std::string chance_text(double chance);

/// A temperature, or a rise of one, in what `system` shows it in: °C and K, or °F for both.
double shown_temperature(double celsius, UnitSystem system);
double celsius_of_shown(double shown, UnitSystem system);
double shown_rise(double kelvin, UnitSystem system);
std::string_view temperature_unit(UnitSystem system);
std::string_view rise_unit(UnitSystem system);

/// Daily light in mol/m²/d as it is shown: "17.8"; a dash for NaN.
std::string daily_light_text(double dli_mol_m2_d);

}  // namespace sunbreak
