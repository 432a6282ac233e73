#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/bench/footprint.h"
#include "core/result.h"

namespace sunbreak {

/// How stations lie in the footprint.
enum class GridKind {
  Cells,  ///< equal cells fill the footprint, a station at each cell's middle, equal weights
  Nodes,  ///< a lattice from edge to edge, edges included, trapezoid weights
  Inset,  ///< a lattice that stops a margin short of the walls; nothing is said about the margin
  Spots   ///< a few named stations: a quick look
};

std::string_view name(GridKind kind);
Result<GridKind> parse_grid_kind(std::string_view text);

struct Spot {
  std::string name;
  double x_m = 0, y_m = 0;

  bool operator==(const Spot&) const = default;
};

/// The rule that places the stations. Columns run along x, rows along y; row 0 is the one at the door.
struct Grid {
  GridKind kind = GridKind::Cells;
  int columns = 12, rows = 12;
  double margin_x_m = 0, margin_y_m = 0;  ///< inset: from the left and right walls, from the front and far walls
  std::vector<Spot> spots;                ///< spots only

  bool operator==(const Grid&) const = default;
};

struct Station {
  double x_m = 0, y_m = 0;
  double weight = 0;  ///< share of the area the mean holds for; all weights add up to 1
  int column = 0, row = 0;
  std::string name;
  bool operator==(const Station&) const = default;
};

/// The stations of a grid laid out on a footprint, front row first, each row from the left.
struct Layout {
  GridKind kind = GridKind::Cells;
  Footprint footprint;
  Rectangle measured;         ///< the area that means and photon flux hold for
  int columns = 0, rows = 0;  ///< 0 × 0 where spots form no lattice
  std::vector<double> xs_m, ys_m;
  std::vector<Station> stations;
  bool nine_point = false;  ///< spots weighted by the two-dimensional Simpson rule

  bool is_lattice() const { return columns > 0; }
  int index(int column, int row) const { return row * columns + column; }
};

/// Lays a grid out on a footprint. Refuses empty grids, margins that leave no area, spots outside the
/// footprint, and more stations or spots than the most.
Result<Layout> lay_out(const Footprint& footprint, const Grid& grid);

/// The nine usual spots: center, mid-sides and corners of the footprint less a margin [m].
std::vector<Spot> nine_spots(const Footprint& footprint, double margin_m = 0);

constexpr int most_stations = 250'000;
constexpr std::size_t most_spots = 400;

}  // namespace sunbreak
