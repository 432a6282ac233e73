#include "core/optics/form_factor.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace sunbreak {
namespace {

constexpr double half_turn_inverse = 1 / (2 * std::numbers::pi);
/// A place in the plane of a side sees it as from just before it.
constexpr double nearest_m = 1e-5;

double coordinate(const Vec3& v, int axis) { return axis == 0 ? v.x : axis == 1 ? v.y : v.z; }

/// Factor to the rectangle from (0, 0) to (x, y) in a parallel plane at distance h; odd in x and in y.
double parallel_primitive(double x, double y, double h) {
  const double a = std::sqrt(h * h + x * x), b = std::sqrt(h * h + y * y);
  return half_turn_inverse * (x / a * std::atan(y / a) + y / b * std::atan(x / b));
}

/// A primitive whose differences are the factor to a rectangle in a perpendicular plane at distance d; y along the
/// planes' common direction, z away from the small surface's own plane. From ∫∫ z d / (π r⁴) dz dy.
double perpendicular_primitive(double y, double z, double d) {
  const double a = std::sqrt(d * d + z * z);
  return -half_turn_inverse * d * std::atan(y / a) / a;
}

}  // namespace

double PatchGrid::area_m2(std::size_t patch) const {
  const std::size_t u = patch % u_count(), v = patch / u_count();
  return (u_edges_m[u + 1] - u_edges_m[u]) * (v_edges_m[v + 1] - v_edges_m[v]);
}

Vec3 PatchGrid::middle(std::size_t patch) const {
  const std::size_t u = patch % u_count(), v = patch / u_count();
  double at[3];
  at[face.axis] = plane_m;
  at[u_axis()] = (u_edges_m[u] + u_edges_m[u + 1]) / 2;
  at[v_axis()] = (v_edges_m[v] + v_edges_m[v + 1]) / 2;
  return {at[0], at[1], at[2]};
}

Vec3 PatchGrid::normal() const {
  const double way = face.high ? -1 : 1;
  return {face.axis == 0 ? way : 0, face.axis == 1 ? way : 0, face.axis == 2 ? way : 0};
}

void add_form_factors(const Vec3& place, int axis, bool toward_high, const PatchGrid& side, double weight,
                      std::span<double> factors) {
  const double way = toward_high ? 1 : -1;
  const std::size_t columns = side.u_edges_m.size(), rows = side.v_edges_m.size();
  std::vector<double> below(columns), line(columns);
  // Which of the side's own axes runs away from the small surface's plane, if it is perpendicular.
  const bool parallel = side.face.axis == axis;
  const double distance = std::abs(side.plane_m - coordinate(place, side.face.axis));
  if (parallel && side.face.high != toward_high) return;
  const bool away_is_u = !parallel && side.u_axis() == axis, away_is_v = !parallel && side.v_axis() == axis;
  const auto relative = [&](double edge, int along, bool away) {
    const double r = edge - coordinate(place, along);
    return away ? std::max(r * way, 0.0) : r;
  };
  const double d = std::max(distance, nearest_m);
  // Away from a low-facing plane the edges run backwards, which turns the sign of every difference.
  const double sign = weight * (!parallel && way < 0 ? -1 : 1);
  for (std::size_t j = 0; j < rows; ++j) {
    const double v = relative(side.v_edges_m[j], side.v_axis(), away_is_v);
    for (std::size_t i = 0; i < columns; ++i) {
      const double u = relative(side.u_edges_m[i], side.u_axis(), away_is_u);
      line[i] = parallel    ? parallel_primitive(u, v, d)
                : away_is_u ? perpendicular_primitive(v, u, d)
                            : perpendicular_primitive(u, v, d);
    }
    if (j > 0)
      for (std::size_t i = 0; i + 1 < columns; ++i)
        factors[(j - 1) * (columns - 1) + i] += sign * (line[i + 1] - line[i] - below[i + 1] + below[i]);
    std::swap(line, below);
  }
}

}  // namespace sunbreak
