#include "core/optics/lobes.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <numbers>
#include <numeric>
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
  std::array<double, round_lobes> powers{c, c * c};
  for (std::size_t i = 2; i < round_lobes; ++i) powers[i] = powers[i - 1] * powers[i - 2];
  double sum = 0;
  for (std::size_t k = 0; k < lobe_count; ++k) {
    const std::size_t power = k < round_lobes ? k : (k - round_lobes) % side_lobes;
    sum += flux[k] * lobe_peak(lobes[k]) * powers[power] * side_part(lobes[k].shape, x2, s2 - x2);
  }
  return sum;
}

namespace {

constexpr int angles = 900;  ///< steps of a quarter of a turn

/// Intensity of one lobe of unit flux, averaged all round, at each angle from the axis.
using AllRound = std::array<std::array<double, lobe_count>, angles + 1>;

std::unique_ptr<const AllRound> lobes_all_round() {
  auto all = std::make_unique<AllRound>();
  for (std::size_t k = 0; k < lobe_count; ++k) {
    LobeFlux only{};
    only[k] = 1;
    for (int i = 0; i <= angles; ++i) {
      double& mean = (*all)[static_cast<std::size_t>(i)][k] = 0;
      for (int turn = 0; turn < 4; ++turn)
        mean += intensity(only, i * std::numbers::pi / 2 / angles, (turn + 0.5) * std::numbers::pi / 8) / 4;
    }
  }
  return all;
}

}  // namespace

double half_angle_deg(const LobeFlux& flux) {
  static const auto lobes_at = lobes_all_round();
  std::vector<double> all_round;
  for (const auto& at : *lobes_at) all_round.push_back(std::inner_product(at.begin(), at.end(), flux.begin(), 0.0));
  const double half = *std::max_element(all_round.begin(), all_round.end()) / 2;
  for (std::size_t i = angles; i-- > 0;)
    if (all_round[i] >= half)
      return (static_cast<double>(i) + (all_round[i] - half) / (all_round[i] - all_round[i + 1])) * 90.0 / angles;
  return 90;
}

}  // namespace sunbreak
