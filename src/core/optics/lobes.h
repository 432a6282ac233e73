#pragma once

#include <array>
#include <cstddef>

namespace sunbreak {

/// One shape of light about an emitter's axis, of a family that the found beams are non-negative mixes of. With x and y
/// the parts of the direction along the fixture's own axes: `Round` I ∝ cosᵏθ, the same all round; `Along` cosᵏθ · x²,
/// two lobes to the left and right with nothing straight ahead; `FarAlong` cosᵏθ · x⁴, narrower ones; `Across` and
/// `FarAcross` the same with y. Along and Across in equal parts make a hollow beam, unequal ones one that is unlike
/// along and across.
struct Lobe {
  enum class Shape { Round, Along, Across, FarAlong, FarAcross } shape;
  int exponent;
};

/// Exponents grow as Fibonacci's numbers do, so that each power is the product of two before it: no pow() is needed.
inline constexpr std::array round_exponents{1, 2, 3, 5, 8, 13, 21, 34, 55};
inline constexpr std::array side_exponents{1, 2, 3, 5, 8, 13, 21};
inline constexpr std::size_t round_lobes = round_exponents.size(), side_lobes = side_exponents.size();
inline constexpr std::size_t lobe_count = round_lobes + 4 * side_lobes;

/// All of the family: the round ones, then those along, across, far along and far across.
inline constexpr std::array<Lobe, lobe_count> lobes = [] {
  std::array<Lobe, lobe_count> all{};
  std::size_t at = 0;
  for (const int k : round_exponents) all[at++] = {Lobe::Shape::Round, k};
  for (const auto shape : {Lobe::Shape::Along, Lobe::Shape::Across, Lobe::Shape::FarAlong, Lobe::Shape::FarAcross})
    for (const int k : side_exponents) all[at++] = {shape, k};
  return all;
}();

/// Flux of each lobe [µmol s⁻¹]; as shares they add up to 1.
using LobeFlux = std::array<double, lobe_count>;

/// What a lobe's shape is multiplied by to send 1 µmol/s: (k+1)/2π for the round ones, (k+1)(k+3)/2π for those with a
/// square, (k+1)(k+3)(k+5)/6π for those with a fourth power.
double lobe_peak(const Lobe& lobe);

/// Intensity of a mix [µmol s⁻¹ sr⁻¹] at an angle from the axis and around it from the fixture's x.
double intensity(const LobeFlux& flux, double theta_rad, double phi_rad);

/// The angle from the axis [°] at which the intensity, averaged all round, has fallen to half of its greatest for good.
double half_angle_deg(const LobeFlux& flux);

}  // namespace sunbreak
