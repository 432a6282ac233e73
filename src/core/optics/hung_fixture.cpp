#include "core/optics/hung_fixture.h"

#include <algorithm>
#include <cmath>

#include "core/optics/fixture_shapes.h"

namespace sunbreak {
namespace {

/// Of a round unit; together about as many emitters as a board's.
constexpr int disc_rings = 5;

}  // namespace

HungFixture::HungFixture(const FixtureOutline& outline, int most) : outline_(outline) {
  const int units = units_of(outline);
  constexpr int few_units = 4, least = 3;
  const int most_a_side = units <= few_units ? most : std::max(least, static_cast<int>(2 * most / std::sqrt(units)));
  if (outline.round)
    for (const Emitter& e : disc(0.5, std::min(disc_rings, most / 2), 1))
      places_.push_back({e.place_m.x * outline.width_m, e.place_m.y * outline.depth_m, 0});
  else
    for (const Emitter& e : board(outline.width_m, outline.depth_m, std::clamp(outline.across, 1, most_a_side),
                                  std::clamp(outline.deep, 1, most_a_side), 1))
      places_.push_back(e.place_m);
}

std::vector<LobeSource> HungFixture::unit(int unit, const Hang& hang, const Vec3& under) const {
  const auto u = static_cast<std::size_t>(unit);
  const Hang::Lean lean = u < hang.leans.size() ? hang.leans[u] : Hang::Lean{};
  const auto turn = [&, described = described_roll_deg(outline_, unit)](const Vec3& v) {
    return turned(turned_about_vertical(turned(v, described, 0), outline_.turn_deg), lean.roll_deg, lean.pitch_deg);
  };
  const UnitPlace place = turned_unit_place(outline_, unit);
  const Vec3 middle = under + Vec3{place.x_m + hang.x_m, place.y_m + hang.y_m, hang.height_m};
  const Vec3 axis = turn(straight_down), along = turn({1, 0, 0}), across = turn({0, 1, 0});
  std::vector<LobeSource> sources;
  sources.reserve(places_.size());
  for (const Vec3& at : places_)
    sources.push_back({middle + turn({hang.span * at.x, hang.span * at.y, 0}), axis, along, across});
  return sources;
}

}  // namespace sunbreak
