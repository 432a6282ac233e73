#include "core/bench/grid.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

#include "core/quantity/number.h"

namespace sunbreak {
namespace {

constexpr double place_tolerance_m = 1e-6;
constexpr int place_decimals = 12;  ///< in meters: finer than any tape, and 0.05 stays 0.05

std::vector<double> cell_middles(double length_m, int count) {
  std::vector<double> places(count);
  for (int i = 0; i < count; ++i) places[i] = rounded_to((i + 0.5) * length_m / count, place_decimals);
  return places;
}

std::vector<double> lattice(double from_m, double length_m, int count) {
  std::vector<double> places(count);
  for (int i = 0; i < count; ++i) places[i] = rounded_to(from_m + i * length_m / (count - 1), place_decimals);
  return places;
}

void fill_lattice(Layout& layout, bool trapezoid) {
  layout.columns = static_cast<int>(layout.xs_m.size());
  layout.rows = static_cast<int>(layout.ys_m.size());
  const auto share = [&](int i, int count) {
    if (!trapezoid) return 1.0 / count;
    return (i == 0 || i == count - 1 ? 0.5 : 1.0) / (count - 1);
  };
  for (int row = 0; row < layout.rows; ++row)
    for (int column = 0; column < layout.columns; ++column)
      layout.stations.push_back({layout.xs_m[column], layout.ys_m[row],
                                 share(column, layout.columns) * share(row, layout.rows), column, row, ""});
}

std::vector<double> distinct(std::vector<double> places) {
  std::sort(places.begin(), places.end());
  const auto same = [](double a, double b) { return b - a < place_tolerance_m; };
  places.erase(std::unique(places.begin(), places.end(), same), places.end());
  return places;
}

/// The nearest of places that rise.
int nearest(const std::vector<double>& places, double place) {
  const auto above = std::lower_bound(places.begin(), places.end(), place);
  if (above == places.begin()) return 0;
  const auto at = above - places.begin();
  return static_cast<int>(above == places.end() || place - *(above - 1) <= *above - place ? at - 1 : at);
}

bool evenly_spaced_three(const std::vector<double>& places) {
  return places.size() == 3 && std::abs(places[0] + places[2] - 2 * places[1]) < 2 * place_tolerance_m;
}

Result<Layout> lay_out_spots(const Footprint& footprint, const Grid& grid) {
  Layout layout{GridKind::Spots, footprint, {0, 0, footprint.width_m, footprint.depth_m}, 0, 0, {}, {}, {}, false};
  if (grid.spots.empty()) return Problem{"the spot check names no station", "", "add at least one"};
  if (grid.spots.size() > most_spots)
    return Problem{"the spot check names " + std::to_string(grid.spots.size()) + " stations",
                   "a spot check is a few stations, and this is a survey", "choose the grid that they lie on"};
  std::vector<double> xs, ys;
  for (const Spot& spot : grid.spots) {
    if (!(spot.x_m >= -place_tolerance_m && spot.x_m <= footprint.width_m + place_tolerance_m &&
          spot.y_m >= -place_tolerance_m && spot.y_m <= footprint.depth_m + place_tolerance_m))
      return Problem{"the spot '" + spot.name + "' lies outside the footprint", "", "check its place and unit"};
    xs.push_back(spot.x_m);
    ys.push_back(spot.y_m);
  }
  layout.xs_m = distinct(xs);
  layout.ys_m = distinct(ys);
  const std::size_t columns = layout.xs_m.size(), rows = layout.ys_m.size(), count = grid.spots.size();
  layout.stations.resize(count);
  std::set<std::size_t> taken;
  const bool full_lattice = columns * rows == count && columns > 1 && rows > 1;
  for (std::size_t i = 0; i < count; ++i) {
    const Spot& spot = grid.spots[i];
    Station station{spot.x_m,
                    spot.y_m,
                    1.0 / static_cast<double>(count),
                    nearest(layout.xs_m, spot.x_m),
                    nearest(layout.ys_m, spot.y_m),
                    spot.name};
    const std::size_t slot = station.row * columns + station.column;
    if (!taken.insert(slot).second)
      return Problem{"two spots share one place", "the mean would count it twice", "remove one"};
    layout.stations[full_lattice ? slot : i] = station;
  }
  if (full_lattice) {
    layout.columns = static_cast<int>(columns);
    layout.rows = static_cast<int>(rows);
  }
  if (full_lattice && evenly_spaced_three(layout.xs_m) && evenly_spaced_three(layout.ys_m)) {
    layout.nine_point = true;
    constexpr std::array<double, 3> simpson{1.0 / 6, 4.0 / 6, 1.0 / 6};
    for (Station& station : layout.stations) station.weight = simpson[station.column] * simpson[station.row];
  }
  return layout;
}

}  // namespace

std::string_view name(GridKind kind) {
  switch (kind) {
    case GridKind::Cells:
      return "cells";
    case GridKind::Nodes:
      return "nodes";
    case GridKind::Inset:
      return "inset";
    case GridKind::Spots:
      return "spots";
  }
  return "cells";
}

Result<GridKind> parse_grid_kind(std::string_view text) {
  for (GridKind kind : {GridKind::Cells, GridKind::Nodes, GridKind::Inset, GridKind::Spots})
    if (text == name(kind)) return kind;
  return Problem{"'" + std::string(text) + "' is not a kind of grid", "", "use cells, nodes, inset or spots"};
}

Result<Layout> lay_out(const Footprint& footprint, const Grid& grid) {
  if (!(footprint.width_m > 0 && footprint.depth_m > 0))
    return Problem{"the footprint has no area", "", "give its width and depth"};
  if (grid.kind == GridKind::Spots) return lay_out_spots(footprint, grid);

  const int fewest = grid.kind == GridKind::Cells ? 1 : 2;
  if (grid.columns < fewest || grid.rows < fewest)
    return Problem{"the grid has too few columns or rows", "", "give at least " + std::to_string(fewest) + " of each"};
  if (static_cast<long long>(grid.columns) * grid.rows > most_stations)
    return Problem{"the grid has over " + std::to_string(most_stations) + " stations", "",
                   "use fewer columns and rows"};

  Layout layout{grid.kind, footprint, {0, 0, footprint.width_m, footprint.depth_m}, 0, 0, {}, {}, {}, false};
  if (grid.kind == GridKind::Inset) {
    layout.measured = {grid.margin_x_m, grid.margin_y_m, footprint.width_m - 2 * grid.margin_x_m,
                       footprint.depth_m - 2 * grid.margin_y_m};
    if (grid.margin_x_m < 0 || grid.margin_y_m < 0 || layout.measured.width_m <= 0 || layout.measured.depth_m <= 0)
      return Problem{"the margin leaves no area to measure", "", "make it smaller than half the footprint"};
  }
  if (grid.kind == GridKind::Cells) {
    layout.xs_m = cell_middles(footprint.width_m, grid.columns);
    layout.ys_m = cell_middles(footprint.depth_m, grid.rows);
  } else {
    layout.xs_m = lattice(layout.measured.left_m, layout.measured.width_m, grid.columns);
    layout.ys_m = lattice(layout.measured.front_m, layout.measured.depth_m, grid.rows);
  }
  fill_lattice(layout, grid.kind != GridKind::Cells);
  return layout;
}

std::vector<Spot> nine_spots(const Footprint& footprint, double margin_m) {
  const std::array<std::array<const char*, 3>, 3> names{
      {{"front left", "front", "front right"}, {"left", "center", "right"}, {"far left", "far", "far right"}}};
  std::vector<Spot> spots;
  for (int row = 0; row < 3; ++row)
    for (int column = 0; column < 3; ++column)
      spots.push_back({names[row][column], margin_m + column * (footprint.width_m - 2 * margin_m) / 2,
                       margin_m + row * (footprint.depth_m - 2 * margin_m) / 2});
  return spots;
}

}  // namespace sunbreak
