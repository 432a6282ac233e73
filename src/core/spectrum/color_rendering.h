#pragma once

#include <array>
#include <optional>

#include "core/spectrum/color.h"

namespace sunbreak {

/// How true colors look beside the reference illuminant of the same color temperature.
struct ColorRendering {
  double ra = 0;                ///< general index: mean of R1 to R8
  std::array<double, 14> r{};   ///< special indices R1 to R14
  double color_difference = 0;  ///< of the light from its reference, CIE 1960 (u, v)

  /// CIE 13.3 is for light whose color differs from its reference by less than 5.4e-3.
  bool within_standard() const { return color_difference <= 5.4e-3; }
};

/// By CIE 13.3-1995: Planckian reference below 5,000 K, a phase of daylight from there on; adaptation after von Kries;
/// differences in U*V*W*. Nothing where there is no color temperature, or where daylight has no phase (over 25,000 K).
std::optional<ColorRendering> color_rendering(const SpectralCurve& curve,
                                              const std::optional<ColorTemperature>& temperature);

/// Relative power of the phase of daylight of a correlated color temperature of 4,000 to 25,000 K at a wavelength [nm].
/// Source: CIE 15.
double daylight_power(double cct_k, double nm);

}  // namespace sunbreak
