#include "core/optics/nominal_fixture.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/optics/fixture_shapes.h"

namespace sunbreak {

namespace {

double columns_from_middle(const FixtureOutline& o, int unit) {
  const int columns = std::max(o.columns, 1);
  return unit % columns - (columns - 1) / 2.0;
}

UnitPlace turned_about_middle(const UnitPlace& p, double degrees) {
  const Vec3 v = turned_about_vertical({p.x_m, p.y_m, 0}, degrees);
  return {v.x, v.y};
}

}  // namespace

UnitPlace unit_place(const FixtureOutline& o, int unit) {
  const int row = unit / std::max(o.columns, 1);
  return {columns_from_middle(o, unit) * o.spacing_x_m, (row - (std::max(o.rows, 1) - 1) / 2.0) * o.spacing_y_m};
}

UnitPlace turned_unit_place(const FixtureOutline& o, int unit) {
  return turned_about_middle(unit_place(o, unit), o.turn_deg);
}

std::array<UnitPlace, 4> unit_corners(const FixtureOutline& o, int unit) {
  const UnitPlace middle = unit_place(o, unit);
  const double x = o.width_m / 2, y = o.depth_m / 2;
  std::array<UnitPlace, 4> corners{{{-x, -y}, {x, -y}, {x, y}, {-x, y}}};
  for (UnitPlace& c : corners) c = turned_about_middle({middle.x_m + c.x_m, middle.y_m + c.y_m}, o.turn_deg);
  return corners;
}

// Lowering a unit's outer edge turns its light away from the middle; inward is the other way.
double described_roll_deg(const FixtureOutline& o, int unit) {
  const double from_middle = columns_from_middle(o, unit);
  return from_middle == 0 ? 0 : from_middle < 0 ? -o.unit_tilt_deg : o.unit_tilt_deg;
}

double exponent_of_beam(double beam_angle_deg) {
  const double half = std::clamp(beam_angle_deg, 5.0, 179.0) / 2 * std::numbers::pi / 180;
  return std::log(0.5) / std::log(std::cos(half));
}

std::vector<Emitter> nominal_fixture(const FixtureOutline& o) {
  const int units = units_of(o);
  std::vector<Emitter> all;
  for (int unit = 0; unit < units; ++unit) {
    const std::vector<Emitter> one = board(o.width_m, o.depth_m, std::max(o.across, 1), std::max(o.deep, 1),
                                           1.0 / units, exponent_of_beam(o.beam_angle_deg));
    const UnitPlace at = unit_place(o, unit);
    all = joined(all, placed(tilted(one, described_roll_deg(o, unit), 0), {at.x_m, at.y_m, 0}));
  }
  for (Emitter& e : all) {
    e.place_m = turned_about_vertical(e.place_m, o.turn_deg);
    e.direction = turned_about_vertical(e.direction, o.turn_deg);
  }
  return all;
}

double usual_reflectance(const std::string& wall) {
  return wall == "reflective" ? 0.82 : wall == "white" ? 0.7 : wall == "dark" ? 0.05 : wall == "open" ? 0 : 0.5;
}

}  // namespace sunbreak
