#include "core/optics/direct_light.h"

#include <cmath>
#include <numbers>

namespace sunbreak {

double direct_ppfd(std::span<const Emitter> emitters, double x_m, double y_m) {
  double sum = 0;
  for (const Emitter& e : emitters) {
    const double dx = x_m - e.x_m, dy = y_m - e.y_m, d2 = dx * dx + dy * dy + e.z_m * e.z_m, d = std::sqrt(d2);
    const double axis = std::sqrt(1 + e.tilt_x * e.tilt_x);
    const double cos_axis = (e.tilt_x * dx + e.z_m) / (axis * d);
    if (cos_axis <= 0) continue;
    sum += e.ppf_umol_s * (e.exponent + 1) / (2 * std::numbers::pi) * std::pow(cos_axis, e.exponent) * (e.z_m / d) / d2;
  }
  return sum;
}

}  // namespace sunbreak
