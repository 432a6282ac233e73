#include "core/heat/surface_temperature.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak {
namespace {

constexpr double kelvin = 273.15, coldest_c = -60, hottest_c = 1200;

bool by_radiation(const TemperatureShot& s) { return s.method != TemperatureMethod::Contact; }
bool is_emissivity(double e) { return e > 0 && e <= 1; }
std::string degrees(double c, UnitSystem units) {
  return fmt::format("{:.0f} {}", shown_temperature(c, units), temperature_unit(units));
}
bool is_temperature(double c) { return c >= coldest_c && c <= hottest_c; }

}  // namespace

Result<double> surface_temperature_c(const TemperatureShot& s) {
  if (!is_temperature(s.read_c))
    return Problem{degrees(s.read_c, s.units) + " was read", "no surface of a test is that cold or that hot",
                   "check the number and its unit"};
  if (!by_radiation(s) || !s.emissivity_set || !s.emissivity_true) return s.read_c;
  for (const double e : {*s.emissivity_set, *s.emissivity_true})
    if (!is_emissivity(e))
      return Problem{fmt::format("an emissivity of {:g} was given", e), "it lies above 0 and is at most 1",
                     "check it: paint and tape have about 0.95"};
  const auto reflected_c = s.reflected_c ? s.reflected_c : s.air_c;
  if (!reflected_c) return s.read_c;
  if (!is_temperature(*reflected_c))
    return Problem{"a reflected temperature of " + degrees(*reflected_c, s.units) + " was given",
                   "nothing around a test is that cold or that hot", "check the number and its unit"};
  const double read = std::pow(s.read_c + kelvin, 4), mirrored = std::pow(*reflected_c + kelvin, 4);
  const double surface = mirrored + (read - mirrored) * *s.emissivity_set / *s.emissivity_true;
  const double found_c = surface > 0 ? std::pow(surface, 0.25) - kelvin : -kelvin;
  if (!is_temperature(found_c))
    return Problem{fmt::format("{} read with {} mirrored would be a surface at {}", degrees(s.read_c, s.units),
                               degrees(*reflected_c, s.units), degrees(found_c, s.units)),
                   "one of these numbers cannot be right", "put tape or paint on the spot and shoot it again"};
  return found_c;
}

std::vector<Finding> temperature_checks(const TemperatureShot& s) {
  std::vector<Finding> checks;
  const auto found = surface_temperature_c(s);
  if (found && found.value() > burns_at_c)
    checks.push_back({"hot enough to burn",
                      Severity::Look,
                      {},
                      degrees(found.value(), s.units) + ", over " + degrees(burns_at_c, s.units),
                      "a surface that hot burns at a touch",
                      "keep hands, leaves and cloth away, and let it cool before you move it"});
  if (!by_radiation(s)) return checks;
  if (s.bare_metal)
    checks.push_back({"shot off bare metal",
                      Severity::Bad,
                      {},
                      "bare or polished metal, by infrared",
                      "it mirrors its surroundings and reads far too low",
                      "put matt tape or paint on the spot, let it warm through, and shoot that"});
  else if (!s.emissivity_set || !s.emissivity_true)
    checks.push_back({"emissivity not stated",
                      Severity::Look,
                      {},
                      "an infrared reading without the emissivity set and that of the surface",
                      "it is shown as read, uncorrected",
                      "state both: paint, tape and leaves have about 0.95"});
  else if (std::abs(*s.emissivity_set - *s.emissivity_true) > 1e-9 && !s.reflected_c && !s.air_c)
    checks.push_back({"reflected temperature not stated",
                      Severity::Look,
                      {},
                      "emissivities that differ, and no reflected temperature",
                      "it is shown as read, uncorrected",
                      "state what the surface mirrors: shoot a crumpled foil beside it, or give the air"});
  return checks;
}

}  // namespace sunbreak
