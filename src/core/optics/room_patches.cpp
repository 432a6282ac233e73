#include "core/optics/room_patches.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

namespace sunbreak {
namespace {

/// Edges along the floor: half evenly spread, half crowded toward both ends, where light changes fastest.
std::vector<double> edges_across(double length_m, int patches) {
  std::vector<double> edges;
  for (int i = 0; i <= patches; ++i) {
    const double t = static_cast<double>(i) / patches;
    edges.push_back(length_m * (0.5 * t + 0.25 * (1 - std::cos(std::numbers::pi * t))));
  }
  return edges;
}

/// Edges up a wall: crowded toward the floor, where the stations are.
std::vector<double> edges_up(double height_m, int patches) {
  std::vector<double> edges;
  for (int i = 0; i <= patches; ++i) edges.push_back(height_m * std::pow(static_cast<double>(i) / patches, 1.6));
  return edges;
}

std::vector<double> cut_finer(const std::vector<double>& edges, int cut) {
  std::vector<double> fine;
  for (std::size_t i = 0; i + 1 < edges.size(); ++i)
    for (int k = 0; k < cut; ++k) fine.push_back(edges[i] + (edges[i + 1] - edges[i]) * k / cut);
  fine.push_back(edges.back());
  return fine;
}

}  // namespace

PatchGrid patch_grid(const Room& room, const Face& face, const PatchCounts& counts, int cut) {
  PatchGrid grid{face, face.high ? size_along(room, face.axis) : 0, {}, {}};
  const auto along = [&](int axis) {
    const auto edges =
        axis == 2 ? edges_up(room.height_m, counts.up) : edges_across(size_along(room, axis), counts.across);
    return cut > 1 ? cut_finer(edges, cut) : edges;
  };
  grid.u_edges_m = along(grid.u_axis());
  grid.v_edges_m = along(grid.v_axis());
  return grid;
}

Interpolation interpolation(const PatchGrid& patches, double u_m, double v_m) {
  const auto bracket = [](const std::vector<double>& edges, double at) {
    const auto middle = [&](std::size_t i) { return (edges[i] + edges[i + 1]) / 2; };
    const std::size_t last = edges.size() - 2;
    std::size_t i = 0;
    while (i < last && middle(i + 1) < at) ++i;
    const double share = i == last ? 0 : std::clamp((at - middle(i)) / (middle(i + 1) - middle(i)), 0.0, 1.0);
    return std::pair{i, share};
  };
  const auto [i, s] = bracket(patches.u_edges_m, u_m);
  const auto [j, t] = bracket(patches.v_edges_m, v_m);
  const std::size_t n = patches.u_count(), i1 = s > 0 ? i + 1 : i, j1 = t > 0 ? j + 1 : j;
  return {{j * n + i, j * n + i1, j1 * n + i, j1 * n + i1}, {(1 - s) * (1 - t), s * (1 - t), (1 - s) * t, s * t}};
}

}  // namespace sunbreak
