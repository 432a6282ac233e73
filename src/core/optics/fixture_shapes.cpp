#include "core/optics/fixture_shapes.h"

#include <cmath>
#include <numbers>

namespace sunbreak {
namespace {

/// The k-th of `count` places spread over a length, its ends included; the middle where there is one.
double spread(double length_m, int k, int count) {
  return count > 1 ? length_m * (static_cast<double>(k) / (count - 1) - 0.5) : 0;
}

double radians(double degrees) { return degrees * std::numbers::pi / 180; }

Vec3 rolled(const Vec3& v, double angle) {
  const double c = std::cos(angle), s = std::sin(angle);
  return {c * v.x + s * v.z, v.y, -s * v.x + c * v.z};
}

Vec3 pitched(const Vec3& v, double angle) {
  const double c = std::cos(angle), s = std::sin(angle);
  return {v.x, c * v.y + s * v.z, -s * v.y + c * v.z};
}

}  // namespace

std::vector<Emitter> board(double width_m, double depth_m, int across, int deep, double ppf_umol_s, double exponent) {
  std::vector<Emitter> emitters;
  for (int j = 0; j < deep; ++j)
    for (int i = 0; i < across; ++i)
      emitters.push_back({{spread(width_m, i, across), spread(depth_m, j, deep), 0},
                          straight_down,
                          ppf_umol_s / (across * deep),
                          exponent});
  return emitters;
}

std::vector<Emitter> bars(int count, double width_m, double length_m, int emitters_a_bar, double ppf_umol_s,
                          double exponent) {
  return board(width_m, length_m, count, emitters_a_bar, ppf_umol_s, exponent);
}

std::vector<Emitter> disc(double radius_m, int rings, double ppf_umol_s, double exponent) {
  std::vector<Emitter> emitters;
  for (int r = 0; r < rings; ++r)
    for (int k = 0; k < 6 * r + (r == 0); ++k) {
      const double at = radius_m * r / std::max(rings - 1, 1), angle = 2 * std::numbers::pi * k / std::max(6 * r, 1);
      emitters.push_back({{at * std::cos(angle), at * std::sin(angle), 0}, straight_down, 0, exponent});
    }
  for (Emitter& e : emitters) e.ppf_umol_s = ppf_umol_s / static_cast<double>(emitters.size());
  return emitters;
}

std::vector<Emitter> reflector_lamp(double width_m, double depth_m, double ppf_umol_s, double exponent) {
  return board(width_m, depth_m, 8, 4, ppf_umol_s, exponent);
}

std::vector<Emitter> pair_of(const std::vector<Emitter>& fixture, double spacing_m, double inward_tilt_deg) {
  std::vector<Emitter> half = fixture;
  for (Emitter& e : half) e.ppf_umol_s /= 2;
  // Rolling the left one lowers its right side, which turns its light away from the middle: inward is the other way.
  return joined(placed(tilted(half, -inward_tilt_deg, 0), {-spacing_m / 2, 0, 0}),
                placed(tilted(half, inward_tilt_deg, 0), {spacing_m / 2, 0, 0}));
}

Vec3 turned(const Vec3& v, double roll_deg, double pitch_deg) {
  return pitched(rolled(v, radians(roll_deg)), radians(pitch_deg));
}

std::vector<Emitter> tilted(std::vector<Emitter> fixture, double roll_deg, double pitch_deg) {
  for (Emitter& e : fixture) {
    e.place_m = turned(e.place_m, roll_deg, pitch_deg);
    e.direction = turned(e.direction, roll_deg, pitch_deg);
  }
  return fixture;
}

Vec3 turned_about_vertical(const Vec3& v, double degrees) {
  if (degrees == 0) return v;
  const double c = std::cos(radians(degrees)), s = std::sin(radians(degrees));
  return {c * v.x - s * v.y, s * v.x + c * v.y, v.z};
}

std::vector<Emitter> placed(std::vector<Emitter> fixture, const Vec3& at, double light_factor) {
  for (Emitter& e : fixture) {
    e.place_m = e.place_m + at;
    e.ppf_umol_s *= light_factor;
  }
  return fixture;
}

std::vector<Emitter> joined(std::vector<Emitter> a, const std::vector<Emitter>& b) {
  a.insert(a.end(), b.begin(), b.end());
  return a;
}

}  // namespace sunbreak
