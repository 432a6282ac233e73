#pragma once

#include <vector>

#include "core/figures/area_light.h"
#include "core/optics/emitter.h"
#include "core/sweep/field.h"

namespace sunbreak {

/// The places that a question about running a fixture asks for the light of an area at, and how its figures are taken
/// from them: as those of a walked sweep are from its stations.
struct SettleLattice {
  Rectangle area;
  Layout asked;              ///< a lattice over the area
  std::vector<Vec3> places;  ///< its stations
  AreaPlan plan;
  RasterPlan shares;  ///< what shares of the area are counted on
  /// Equal cells that fill the area, 48 along its longer side, front row first: for maps and chances.
  RasterPlan cells;
  int columns = 0, rows = 0;
  double edge_shape_at_edge = 1;  ///< mean of edge_shape() along the edge's line

  std::size_t cell_count() const { return static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows); }
  Vec3 cell(std::size_t index) const;
};

inline constexpr int settle_cells = 48;

/// Of a part, or all, of what a lattice of places covers.
SettleLattice settle_lattice(const Rectangle& area, const Layout& asked);

/// Where light is asked for over an area: at the stations; beyond them, where the area reaches farther, on lines at
/// their spacing. `everywhere`: the light between loose spots is known, and is asked for on a lattice of its own.
Layout asked_places(const Rectangle& area, const Layout& stations, bool everywhere);

/// A field's values on a raster, front row first.
std::vector<double> samples_of(const RasterPlan& raster, std::span<const double> ppfd);

}  // namespace sunbreak
