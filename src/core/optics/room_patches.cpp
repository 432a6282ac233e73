#include "core/optics/room_patches.h"

#include <cmath>
#include <numbers>
#include <vector>

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

}  // namespace sunbreak
