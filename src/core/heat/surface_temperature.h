#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/checks/finding.h"
#include "core/quantity/display.h"
#include "core/result.h"

namespace sunbreak {

enum class TemperatureMethod { Infrared, Camera, Contact };

/// A temperature as it was taken [°C].
struct TemperatureShot {
  double read_c = 0;
  TemperatureMethod method = TemperatureMethod::Contact;
  std::optional<double> emissivity_set;   ///< of the instrument, 0 to 1
  std::optional<double> emissivity_true;  ///< of the surface
  std::optional<double> reflected_c;      ///< of what the surface mirrors; the air where not stated
  bool bare_metal = false;
  std::optional<double> air_c;
  UnitSystem units = UnitSystem::Metric;  ///< that temperatures are told in
};

/// The surface's temperature [°C]. By infrared or camera with both emissivities known:
/// T⁴ = T_refl⁴ + (T_read⁴ − T_refl⁴) · ε_set / ε in kelvin (radiation thermometry, surface opaque and diffuse);
/// otherwise as read. A Problem where the numbers contradict each other or are no temperatures.
Result<double> surface_temperature_c(const TemperatureShot& shot);

inline constexpr double burns_at_c = 60;

/// Hot enough to burn; shot off bare metal; emissivities or reflected temperature not stated where they matter.
std::vector<Finding> temperature_checks(const TemperatureShot& shot);

}  // namespace sunbreak
