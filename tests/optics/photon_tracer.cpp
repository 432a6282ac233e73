#include "photon_tracer.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace sunbreak::tracer {
namespace {

double unit(Random& random) { return static_cast<double>(random() >> 11) * 0x1p-53; }

struct Ray {
  double at[3], way[3];
};

struct Hit {
  int axis;
  bool high;
};

/// Moves a ray to the side of the box that it meets.
Hit fly(const Room& room, Ray& ray) {
  const double size[3] = {room.width_m, room.depth_m, room.height_m};
  double nearest = 1e300;
  Hit hit{0, false};
  for (int a = 0; a < 3; ++a) {
    if (ray.way[a] == 0) continue;
    const double reach = ((ray.way[a] > 0 ? size[a] : 0) - ray.at[a]) / ray.way[a];
    if (reach < nearest) nearest = reach, hit = {a, ray.way[a] > 0};
  }
  for (int a = 0; a < 3; ++a) ray.at[a] = std::clamp(ray.at[a] + nearest * ray.way[a], 0.0, size[a]);
  ray.at[hit.axis] = hit.high ? size[hit.axis] : 0;
  return hit;
}

/// Sends a ray off a side, cosine-weighted about its inward normal.
void scatter(const Hit& side, Ray& ray, Random& random) {
  const double c2 = unit(random), along = std::sqrt(1 - c2), turn = 2 * std::numbers::pi * unit(random);
  ray.way[side.axis] = (side.high ? -1 : 1) * std::sqrt(c2);
  ray.way[(side.axis + 1) % 3] = along * std::cos(turn);
  ray.way[(side.axis + 2) % 3] = along * std::sin(turn);
}

/// A direction from an emitter whose density over the half-space falls with cosᵐ.
void emit(const Emitter& e, Ray& ray, Random& random) {
  const double c = std::pow(unit(random), 1 / (e.exponent + 1)), s = std::sqrt(std::max(0.0, 1 - c * c));
  const double turn = 2 * std::numbers::pi * unit(random), p = s * std::cos(turn), q = s * std::sin(turn);
  const Vec3& n = e.direction;
  const Vec3 helper = std::abs(n.z) < 0.9 ? Vec3{0, 0, 1} : Vec3{1, 0, 0};
  Vec3 u{n.y * helper.z - n.z * helper.y, n.z * helper.x - n.x * helper.z, n.x * helper.y - n.y * helper.x};
  const double length = std::sqrt(dot(u, u));
  u = {u.x / length, u.y / length, u.z / length};
  const Vec3 v{n.y * u.z - n.z * u.y, n.z * u.x - n.x * u.z, n.x * u.y - n.y * u.x};
  ray = {{e.place_m.x, e.place_m.y, e.place_m.z},
         {c * n.x + p * u.x + q * v.x, c * n.y + p * u.y + q * v.y, c * n.z + p * u.z + q * v.z}};
}

std::vector<double> running_flux(std::span<const Emitter> emitters) {
  std::vector<double> flux;
  double sum = 0;
  for (const Emitter& e : emitters) flux.push_back(sum += e.ppf_umol_s);
  return flux;
}

const Emitter& by_flux(std::span<const Emitter> emitters, const std::vector<double>& flux, Random& random) {
  const auto at = std::upper_bound(flux.begin(), flux.end(), unit(random) * flux.back()) - flux.begin();
  return emitters[std::min(static_cast<std::size_t>(at), emitters.size() - 1)];
}

}  // namespace

Estimate floor_mean(const Room& room, std::span<const Emitter> emitters, int photons, Random& random) {
  const auto flux = running_flux(emitters);
  double sum = 0, squares = 0;
  for (int i = 0; i < photons; ++i) {
    Ray ray;
    emit(by_flux(emitters, flux, random), ray, random);
    double landings = 0;
    for (;;) {
      const Hit hit = fly(room, ray);
      if (hit.axis == 2 && !hit.high) ++landings;
      if (unit(random) >= reflectance_of(room, {hit.axis, hit.high})) break;
      scatter(hit, ray, random);
    }
    sum += landings;
    squares += landings * landings;
  }
  const double n = photons, mean = sum / n, scale = flux.back() / (room.width_m * room.depth_m);
  return {mean * scale, std::sqrt((squares / n - mean * mean) / n) * scale};
}

namespace {

struct Point {
  double at[3];
  Hit side;
};

/// Density, per area of its side, with which an emitter's photons land at a point.
double landing_density(const Emitter& e, const Point& p) {
  const Vec3 to{p.at[0] - e.place_m.x, p.at[1] - e.place_m.y, p.at[2] - e.place_m.z};
  const double d2 = dot(to, to), d = std::sqrt(d2), leaving = dot(to, e.direction) / d;
  const double along[3] = {to.x, to.y, to.z}, arriving = (p.side.high ? 1 : -1) * along[p.side.axis] / d;
  if (leaving <= 0 || arriving <= 0) return 0;
  return (e.exponent + 1) / (2 * std::numbers::pi) * std::pow(leaving, e.exponent) * arriving / d2;
}

/// Density, per area of its side, with which light scattered at one point lands at another.
double scatter_density(const Point& from, const Point& to) {
  double way[3], d2 = 0;
  for (int a = 0; a < 3; ++a) way[a] = to.at[a] - from.at[a], d2 += way[a] * way[a];
  const double leaving = (from.side.high ? -1 : 1) * way[from.side.axis];
  const double arriving = (to.side.high ? 1 : -1) * way[to.side.axis];
  if (leaving <= 0 || arriving <= 0) return 0;
  return leaving * arriving / (std::numbers::pi * d2 * d2);
}

Point point_of(const Ray& ray, const Hit& hit) { return {{ray.at[0], ray.at[1], ray.at[2]}, hit}; }

}  // namespace

Estimate reflected_at(const Room& room, std::span<const Emitter> emitters, const Vec3& place, int paths,
                      Random& random) {
  const auto flux = running_flux(emitters);
  double sum = 0, squares = 0;
  for (int i = 0; i < paths; ++i) {
    Ray ray{{place.x, place.y, place.z}, {0, 0, 0}};
    Point here = point_of(ray, {2, false});
    double gathered = 0;
    for (;;) {
      // One way: a photon is sent out, and the surface that it meets is asked for its light here.
      const Emitter& sender = by_flux(emitters, flux, random);
      Ray photon{};
      emit(sender, photon, random);
      const Hit landing = fly(room, photon);
      const Point landed = point_of(photon, landing);
      if (const double back = scatter_density(here, landed); back > 0) {
        const double density = landing_density(sender, landed);
        gathered +=
            flux.back() * reflectance_of(room, {landing.axis, landing.high}) * back * density / (back + density);
      }
      // The other: the path goes on to a surface, and an emitter is asked for its light there.
      scatter(here.side, ray, random);
      const Hit met = fly(room, ray);
      // Survival by the reflectance itself stands for the weight that the light would lose.
      if (unit(random) >= reflectance_of(room, {met.axis, met.high})) break;
      const Point next = point_of(ray, met);
      const double back = scatter_density(here, next), density = landing_density(by_flux(emitters, flux, random), next);
      if (back + density > 0) gathered += flux.back() * density * back / (back + density);
      here = next;
    }
    sum += gathered;
    squares += gathered * gathered;
  }
  const double n = paths, mean = sum / n;
  return {mean, std::sqrt((squares / n - mean * mean) / n)};
}

}  // namespace sunbreak::tracer
