#include "core/optics/form_factor.h"

#include <algorithm>
#include <cmath>

#include "core/optics/form_factor_kernel.h"

namespace sunbreak {
namespace {

/// A place in the plane of a side sees it as from just before it.
constexpr double nearest_m = 1e-5;

double coordinate(const Vec3& v, int axis) { return axis == 0 ? v.x : axis == 1 ? v.y : v.z; }

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
  // Which of the side's own axes runs away from the small surface's plane, if it is perpendicular.
  const bool parallel = side.face.axis == axis;
  if (parallel && side.face.high != toward_high) return;
  const bool away_is_u = !parallel && side.u_axis() == axis, away_is_v = !parallel && side.v_axis() == axis;
  const double way = toward_high ? 1 : -1;
  const auto relative = [&](double edge, int along, bool away) {
    const double r = edge - coordinate(place, along);
    return away ? std::max(r * way, 0.0) : r;
  };
  const std::size_t columns = side.u_edges_m.size();
  std::vector<double> along(columns), below(columns), line(columns);
  for (std::size_t i = 0; i < columns; ++i) along[i] = relative(side.u_edges_m[i], side.u_axis(), away_is_u);
  const CornerPrimitives& primitives = corner_primitives();
  const auto primitive = parallel ? primitives.parallel : away_is_u ? primitives.away : primitives.beside;
  const double distance = std::max(std::abs(side.plane_m - coordinate(place, side.face.axis)), nearest_m);
  // Away from a low-facing plane the edges run backwards, which turns the sign of every difference.
  const double sign = weight * (!parallel && way < 0 ? -1 : 1);
  for (std::size_t j = 0; j < side.v_edges_m.size(); ++j) {
    primitive({along.data(), columns, relative(side.v_edges_m[j], side.v_axis(), away_is_v), distance}, line.data());
    if (j > 0)
      for (std::size_t i = 0; i + 1 < columns; ++i)
        factors[(j - 1) * (columns - 1) + i] += sign * (line[i + 1] - line[i] - below[i + 1] + below[i]);
    std::swap(line, below);
  }
}

}  // namespace sunbreak
