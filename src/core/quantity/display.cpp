#include "core/quantity/display.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak {

std::string share_text(double share) { return fmt::format("{:.0f} %", 100 * share); }

std::string chance_text(double chance) {
  if (chance < 0.01) return "under 1 %";
  if (chance > 0.99) return "over 99 %";
  return fmt::format("{:.0f} %", 100 * chance);
}

std::string short_number(double value, int decimals) {
  if (!std::isfinite(value)) return "–";
  std::string text = fmt::format("{:.{}f}", value, decimals);
  if (text.find('.') != std::string::npos) {
    text.erase(text.find_last_not_of('0') + 1);
    if (text.back() == '.') text.pop_back();
  }
  return text == "-0" ? "0" : text;
}

std::string length_text(double length_m, UnitSystem system) {
  const LengthUnit unit = surface_unit(system);
  return short_number(from_m(length_m, unit), 1) + " " + std::string(symbol(unit));
}

std::string size_text(double width_m, double depth_m, UnitSystem system) {
  const LengthUnit unit = surface_unit(system);
  return short_number(from_m(width_m, unit), 1) + " × " + short_number(from_m(depth_m, unit), 1) + " " +
         std::string(symbol(unit));
}

std::string area_text(double area_m2, UnitSystem system) {
  return system == UnitSystem::Metric ? fmt::format("{:.2f} m²", area_m2)
                                      : fmt::format("{:.1f} ft²", square_feet(area_m2));
}

double shown_temperature(double celsius, UnitSystem system) {
  return system == UnitSystem::Metric ? celsius : 32 + 1.8 * celsius;
}
double celsius_of_shown(double shown, UnitSystem system) {
  return system == UnitSystem::Metric ? shown : (shown - 32) / 1.8;
}
double shown_rise(double kelvin, UnitSystem system) { return system == UnitSystem::Metric ? kelvin : 1.8 * kelvin; }
std::string_view temperature_unit(UnitSystem system) { return system == UnitSystem::Metric ? "°C" : "°F"; }
std::string_view rise_unit(UnitSystem system) { return system == UnitSystem::Metric ? "K" : "°F"; }

std::string daily_light_text(double dli_mol_m2_d) {
  return std::isnan(dli_mol_m2_d) ? "–" : fmt::format("{:.1f}", dli_mol_m2_d);
}

std::string ppfd_text(double ppfd) { return short_number(ppfd, std::abs(ppfd) < 99.95 ? 1 : 0); }

}  // namespace sunbreak
