#pragma once

#include <cstddef>
#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/optics/emitter.h"

namespace sunbreak {

/// The places that a question about running a fixture asks for the light of an area at: equal cells that fill it, 48
/// along its longer side, places along its very edge, and where a tester reads its center and its corners.
struct SettleLattice {
  Rectangle area;
  int columns = 0, rows = 0;
  /// The cells' middles, front row first, then the edge's, the center's and the corners' places.
  std::vector<Vec3> places;
  std::size_t cells = 0, edge = 0, center = 0, corners = 0;

  /// What belongs to each part, of values one a place.
  template <typename Value>
  std::span<const Value> edge_of(std::span<const Value> values) const {
    return values.subspan(cells, edge);
  }
  template <typename Value>
  std::span<const Value> center_of(std::span<const Value> values) const {
    return values.subspan(cells + edge, center);
  }
  template <typename Value>
  std::span<const Value> corners_of(std::span<const Value> values) const {
    return values.subspan(cells + edge + center, corners);
  }
};

inline constexpr int settle_cells = 48;

/// Of an area on the floor. Where it is all that the stations stand in, center and corners are their middle and corner
/// ones, as a sweep's figures have them; else the area's middle and its corner cells.
SettleLattice settle_lattice(const Rectangle& area, const Layout& stations);

}  // namespace sunbreak
