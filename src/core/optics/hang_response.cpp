#include "core/optics/hang_response.h"

#include <algorithm>
#include <cmath>

#include "core/bench/walk_order.h"
#include "core/optics/fixture_shapes.h"

namespace sunbreak {
namespace {

constexpr double step_deg = 1, aside_step_m = 0.01;

struct Corners {
  double right_over_left_pct, far_over_near_pct;
};

}  // namespace

HangResponse hang_response(const RoomLight& light, std::span<const Emitter> fixture, const Layout& layout,
                           double height_m) {
  HangResponse r;
  if (fixture.empty()) return r;
  const Vec3 middle{layout.footprint.width_m / 2, layout.footprint.depth_m / 2, height_m};
  const std::vector<Emitter> true_hung(fixture.begin(), fixture.end());
  std::vector<Vec3> all;
  for (const Station& s : layout.stations) all.push_back({s.x_m, s.y_m, 0});
  const Prediction everywhere = light.predict(placed(true_hung, middle), light.stations(all));
  for (std::size_t i = 0; i < all.size(); ++i) r.pattern.push_back(everywhere.direct[i] + everywhere.reflected[i]);
  const auto probe = opening_probe(layout);
  if (probe.empty()) return r;
  std::vector<Vec3> places;
  for (int i = 0; i < 4; ++i) places.push_back({layout.stations[probe[i]].x_m, layout.stations[probe[i]].y_m, 0});
  const StationFactors factors = light.stations(places);
  const auto corners = [&](double roll, double pitch, double x_m, double y_m) {
    const Prediction p = light.predict(placed(tilted(true_hung, roll, pitch), middle + Vec3{x_m, y_m, 0}), factors);
    const auto e = [&](int i) { return p.direct[i] + p.reflected[i]; };
    const double mean = (e(0) + e(1) + e(2) + e(3)) / 4;
    return Corners{50 * (e(1) + e(2) - e(0) - e(3)) / mean, 50 * (e(0) + e(1) - e(2) - e(3)) / mean};
  };
  const Corners still = corners(0, 0, 0, 0);
  r.expected_right_over_left_pct = still.right_over_left_pct;
  r.expected_far_over_near_pct = still.far_over_near_pct;
  r.right_over_left_per_deg = corners(step_deg, 0, 0, 0).right_over_left_pct - still.right_over_left_pct;
  r.far_over_near_per_deg = corners(0, step_deg, 0, 0).far_over_near_pct - still.far_over_near_pct;
  r.right_over_left_per_cm = corners(0, 0, aside_step_m, 0).right_over_left_pct - still.right_over_left_pct;
  r.far_over_near_per_cm = corners(0, 0, 0, aside_step_m).far_over_near_pct - still.far_over_near_pct;
  for (const Emitter& e : fixture) {
    r.half_width_m = std::max(r.half_width_m, std::abs(e.place_m.x));
    r.half_depth_m = std::max(r.half_depth_m, std::abs(e.place_m.y));
  }
  return r;
}

}  // namespace sunbreak
