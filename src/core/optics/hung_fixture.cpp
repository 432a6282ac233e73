#include "core/optics/hung_fixture.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/optics/fixture_shapes.h"

namespace sunbreak {
namespace {

/// Of a round unit; together about as many emitters as a board's.
constexpr int rings = 5;

/// Turns about y, then about x, as tilted() does.
struct Turn {
  double cos_roll, sin_roll, cos_pitch, sin_pitch;
  Turn(double roll_deg, double pitch_deg)
      : cos_roll(std::cos(roll_deg * std::numbers::pi / 180)),
        sin_roll(std::sin(roll_deg * std::numbers::pi / 180)),
        cos_pitch(std::cos(pitch_deg * std::numbers::pi / 180)),
        sin_pitch(std::sin(pitch_deg * std::numbers::pi / 180)) {}
  Vec3 operator()(const Vec3& v) const {
    const Vec3 r{v.x * cos_roll + v.z * sin_roll, v.y, v.z * cos_roll - v.x * sin_roll};
    return {r.x, r.y * cos_pitch + r.z * sin_pitch, r.z * cos_pitch - r.y * sin_pitch};
  }
};

}  // namespace

HungFixture::HungFixture(const FixtureOutline& outline) : outline_(outline) {
  const int units = std::max(outline.units, 1);
  constexpr int few_units = 4, most = 12, least = 3;
  const int most_a_side = units <= few_units ? most : std::max(least, static_cast<int>(2 * most / std::sqrt(units)));
  if (outline.round)
    for (const Emitter& e : disc(0.5, rings, 1))
      places_.push_back({e.place_m.x * outline.width_m, e.place_m.y * outline.depth_m, 0});
  else
    for (const Emitter& e : board(outline.width_m, outline.depth_m, std::clamp(outline.across, 1, most_a_side),
                                  std::clamp(outline.deep, 1, most_a_side), 1))
      places_.push_back(e.place_m);
  for (int unit = 0; unit < units; ++unit) {
    const double from_middle = unit - (units - 1) / 2.0;
    middles_.push_back({from_middle * outline.unit_spacing_m, 0, 0});
    described_rolls_deg_.push_back(from_middle == 0  ? 0
                                   : from_middle < 0 ? -outline.unit_tilt_deg
                                                     : outline.unit_tilt_deg);
  }
}

std::vector<LobeSource> HungFixture::unit(int unit, const Hang& hang, const Vec3& under) const {
  const auto u = static_cast<std::size_t>(unit);
  const Hang::Lean lean = u < hang.leans.size() ? hang.leans[u] : Hang::Lean{};
  const Turn turn(described_rolls_deg_[u] + lean.roll_deg, lean.pitch_deg);
  const Vec3 middle = under + middles_[u] + Vec3{hang.x_m, hang.y_m, hang.height_m};
  const Vec3 axis = turn(straight_down), along = turn({1, 0, 0}), across = turn({0, 1, 0});
  std::vector<LobeSource> sources;
  sources.reserve(places_.size());
  for (const Vec3& place : places_)
    sources.push_back({middle + turn({hang.span * place.x, hang.span * place.y, 0}), axis, along, across});
  return sources;
}

}  // namespace sunbreak
