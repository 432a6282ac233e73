#include "core/optics/nominal_fixture.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/optics/fixture_shapes.h"

namespace sunbreak {

namespace {
double units_from_middle(const FixtureOutline& o, int unit) { return unit - (std::max(o.units, 1) - 1) / 2.0; }
}  // namespace

double unit_middle_m(const FixtureOutline& o, int unit) { return units_from_middle(o, unit) * o.unit_spacing_m; }

// Lowering a unit's outer edge turns its light away from the middle; inward is the other way.
double described_roll_deg(const FixtureOutline& o, int unit) {
  const double from_middle = units_from_middle(o, unit);
  return from_middle == 0 ? 0 : from_middle < 0 ? -o.unit_tilt_deg : o.unit_tilt_deg;
}

double exponent_of_beam(double beam_angle_deg) {
  const double half = std::clamp(beam_angle_deg, 5.0, 179.0) / 2 * std::numbers::pi / 180;
  return std::log(0.5) / std::log(std::cos(half));
}

std::vector<Emitter> nominal_fixture(const FixtureOutline& o) {
  const int units = std::max(o.units, 1);
  std::vector<Emitter> all;
  for (int unit = 0; unit < units; ++unit) {
    const std::vector<Emitter> one = board(o.width_m, o.depth_m, std::max(o.across, 1), std::max(o.deep, 1),
                                           1.0 / units, exponent_of_beam(o.beam_angle_deg));
    all = joined(all, placed(tilted(one, described_roll_deg(o, unit), 0), {unit_middle_m(o, unit), 0, 0}));
  }
  return all;
}

double usual_reflectance(const std::string& wall) {
  return wall == "reflective" ? 0.82 : wall == "white" ? 0.7 : wall == "dark" ? 0.05 : wall == "open" ? 0 : 0.5;
}

}  // namespace sunbreak
