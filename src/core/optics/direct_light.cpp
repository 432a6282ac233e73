#include "core/optics/direct_light.h"

#include <cmath>
#include <numbers>

#include "core/optics/direct_kernel.h"

namespace sunbreak {

double direct_ppfd(std::span<const Emitter> emitters, const Vec3& place, const Vec3& normal) {
  double sum = 0;
  for (const Emitter& e : emitters) {
    const Vec3 to = place - e.place_m;
    const double d2 = dot(to, to), d = std::sqrt(d2);
    const double cos_axis = dot(to, e.direction) / d, cos_normal = -dot(to, normal) / d;
    if (cos_axis <= 0 || cos_normal <= 0) continue;
    sum += e.ppf_umol_s * (e.exponent + 1) / (2 * std::numbers::pi) * std::pow(cos_axis, e.exponent) * cos_normal / d2;
  }
  return sum;
}

namespace {

DirectKernel unpacked(const Emitter& e, const Vec3& normal) {
  const Vec3 &at = e.place_m, &way = e.direction;
  const double peak = e.ppf_umol_s * (e.exponent + 1) / (2 * std::numbers::pi);
  return {at.x, at.y, at.z, way.x, way.y, way.z, normal.x, normal.y, normal.z, peak, e.exponent};
}

template <typename Places, typename Real>
void add_all_direct(std::span<const Emitter> emitters, const Places& places, std::span<Real> ppfd) {
  for (const Emitter& e : emitters)
    if (e.ppf_umol_s != 0)
      add_direct(unpacked(e, places.normal), places.x_m.data(), places.y_m.data(), places.z_m.data(), ppfd.data(),
                 ppfd.size());
}

}  // namespace

RoughPlaces::RoughPlaces(const FacingPlaces& places)
    : normal(places.normal),
      x_m(places.x_m.begin(), places.x_m.end()),
      y_m(places.y_m.begin(), places.y_m.end()),
      z_m(places.z_m.begin(), places.z_m.end()) {}

void add_direct_ppfd(std::span<const Emitter> emitters, const FacingPlaces& places, std::span<double> ppfd) {
  add_all_direct(emitters, places, ppfd);
}

void add_direct_ppfd(std::span<const Emitter> emitters, const RoughPlaces& places, std::span<float> ppfd) {
  add_all_direct(emitters, places, ppfd);
}

}  // namespace sunbreak
