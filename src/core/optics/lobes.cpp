#include "core/optics/lobes.h"

#include <cmath>
#include <numbers>
#include <vector>

namespace sunbreak {

double lobe_peak(const Lobe& lobe) {
  const double k = lobe.exponent;
  switch (lobe.shape) {
    case Lobe::Shape::Round:
      return (k + 1) / (2 * std::numbers::pi);
    case Lobe::Shape::Along:
    case Lobe::Shape::Across:
      return (k + 1) * (k + 3) / (2 * std::numbers::pi);
    default:
      return (k + 1) * (k + 3) * (k + 5) / (6 * std::numbers::pi);
  }
}

namespace {

double side_part(Lobe::Shape shape, double x2, double y2) {
  switch (shape) {
    case Lobe::Shape::Round:
      return 1;
    case Lobe::Shape::Along:
      return x2;
    case Lobe::Shape::Across:
      return y2;
    case Lobe::Shape::FarAlong:
      return x2 * x2;
    default:
      return y2 * y2;
  }
}

}  // namespace

double intensity(const LobeFlux& flux, double theta_rad, double phi_rad) {
  const double c = std::cos(theta_rad), s2 = 1 - c * c, x2 = s2 * std::cos(phi_rad) * std::cos(phi_rad);
  if (c <= 0) return 0;
  double sum = 0;
  for (std::size_t k = 0; k < lobe_count; ++k) {
    if (flux[k] != 0)
      sum += flux[k] * lobe_peak(lobes[k]) * std::pow(c, lobes[k].exponent) * side_part(lobes[k].shape, x2, s2 - x2);
  }
  return sum;
}

double half_angle_deg(const LobeFlux& flux) {
  constexpr int steps = 900;
  std::vector<double> all_round;
  double greatest = 0;
  for (int i = 0; i <= steps; ++i) {
    const double theta = i * std::numbers::pi / 2 / steps;
    double sum = 0;
    for (int k = 0; k < 4; ++k) sum += intensity(flux, theta, (k + 0.5) * std::numbers::pi / 8) / 4;
    all_round.push_back(sum);
    greatest = std::max(greatest, all_round.back());
  }
  for (int i = steps - 1; i >= 0; --i)
    if (all_round[static_cast<std::size_t>(i)] >= greatest / 2) {
      const double here = all_round[static_cast<std::size_t>(i)], next = all_round[static_cast<std::size_t>(i) + 1];
      return (i + (here - greatest / 2) / (here - next)) * 90.0 / steps;
    }
  return 90;
}

}  // namespace sunbreak
