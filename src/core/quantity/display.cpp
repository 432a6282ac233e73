#include "core/quantity/display.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak {

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

std::string ppfd_text(double ppfd) { return short_number(ppfd, std::abs(ppfd) < 99.95 ? 1 : 0); }

}  // namespace sunbreak
