#pragma once

#include <string>
#include <vector>

#include "core/optics/emitter.h"

namespace sunbreak {

/// What a fixture's description says of its light, before anything is measured.
struct FixtureOutline {
  double width_m = 0.6, depth_m = 0.6;  ///< of one unit
  int units = 1;                        ///< side by side along x
  double unit_spacing_m = 0;            ///< middle to middle
  double unit_tilt_deg = 0;             ///< outer units turned inward
  int across = 8, deep = 8;             ///< emitters of a unit along x and y
  double beam_angle_deg = 120;          ///< full angle at half intensity
  bool round = false;                   ///< a unit's emitters fill the ellipse in its rectangle
  bool operator==(const FixtureOutline&) const = default;
};

/// All units together along x.
constexpr double whole_width_m(const FixtureOutline& o) { return (o.units - 1) * o.unit_spacing_m + o.width_m; }

/// Where a unit's middle lies along x, and how far it is described as turned: its right side lower.
double unit_middle_m(const FixtureOutline& outline, int unit);
double described_roll_deg(const FixtureOutline& outline, int unit);

/// cosᵐ exponent whose intensity halves at half of `beam_angle_deg`, from 5° up to 179°: m = ln ½ / ln cos(angle/2).
double exponent_of_beam(double beam_angle_deg);

/// The fixture as the optical model sees it, about its own middle, sending 1 µmol/s in all.
std::vector<Emitter> nominal_fixture(const FixtureOutline& outline);

/// Reflectance the model gives a wall described as reflective, white, dark or open; 0.5 where nothing is stated.
double usual_reflectance(const std::string& wall);

}  // namespace sunbreak
