#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/optics/emitter.h"

namespace sunbreak {

/// What a fixture's description says of its light, before anything is measured.
struct FixtureOutline {
  double width_m = 0.6, depth_m = 0.6;      ///< of one unit
  int columns = 1, rows = 1;                ///< of units, along x and y
  double spacing_x_m = 0, spacing_y_m = 0;  ///< middle to middle
  double turn_deg = 0;                      ///< all of them together, counterclockwise seen from above
  double unit_tilt_deg = 0;                 ///< outer columns turned inward; their height is that of their middle
  int across = 8, deep = 8;                 ///< emitters of a unit along x and y
  double beam_angle_deg = 120;              ///< full angle at half intensity
  bool round = false;                       ///< a unit's emitters fill the ellipse in its rectangle
  bool operator==(const FixtureOutline&) const = default;
};

/// How many units there are; they are counted row by row from the front left.
constexpr int units_of(const FixtureOutline& o) { return (o.columns > 1 ? o.columns : 1) * (o.rows > 1 ? o.rows : 1); }

/// A unit from above, before the whole is turned: where its middle lies from the middle of all of them.
struct UnitPlace {
  double x_m = 0, y_m = 0;
};
UnitPlace unit_place(const FixtureOutline& outline, int unit);

/// Where its middle lies once they are turned.
UnitPlace turned_unit_place(const FixtureOutline& outline, int unit);

/// The sides of what all units cover, before they are turned.
constexpr double whole_width_m(const FixtureOutline& o) { return (o.columns - 1) * o.spacing_x_m + o.width_m; }
constexpr double whole_depth_m(const FixtureOutline& o) { return (o.rows - 1) * o.spacing_y_m + o.depth_m; }

/// The corners of a unit from above, in order around it, from the middle of all of them.
std::array<UnitPlace, 4> unit_corners(const FixtureOutline& outline, int unit);

/// How far a unit is described as turned about the rows' direction: its right side lower.
double described_roll_deg(const FixtureOutline& outline, int unit);

/// cosᵐ exponent whose intensity halves at half of `beam_angle_deg`, from 5° up to 179°: m = ln ½ / ln cos(angle/2).
double exponent_of_beam(double beam_angle_deg);

/// The fixture as the optical model sees it, about its own middle, sending 1 µmol/s in all.
std::vector<Emitter> nominal_fixture(const FixtureOutline& outline);

/// Reflectance the model gives a wall described as reflective, white, dark or open; 0.5 where nothing is stated.
double usual_reflectance(const std::string& wall);

}  // namespace sunbreak
