#include "core/sweep/reduction.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/bench/station_box.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double least_cell_read = 0.5;

double shared(double a0, double a1, double b0, double b1) { return std::max(0.0, std::min(a1, b1) - std::max(a0, b0)); }

/// Cells over the measured area, which for an inset grid is not the footprint.
Layout coarse_layout(const Layout& fine, int columns, int rows) {
  const Rectangle& area = fine.measured;
  Layout coarse = lay_out({area.width_m, area.depth_m}, {GridKind::Cells, columns, rows, 0, 0, {}}).value();
  coarse.footprint = fine.footprint;
  coarse.measured = area;
  for (double& x : coarse.xs_m) x += area.left_m;
  for (double& y : coarse.ys_m) y += area.front_m;
  for (Station& s : coarse.stations) s.x_m += area.left_m, s.y_m += area.front_m;
  return coarse;
}

}  // namespace

Result<Reduced> reduce(const Layout& layout, std::span<const double> ppfd, int columns, int rows) {
  if (!layout.is_lattice())
    return Problem{"a spot check has no cells", "it cannot be averaged onto a grid", "walk a grid of stations"};
  if (columns < 1 || rows < 1 || columns > layout.columns || rows > layout.rows)
    return Problem{fmt::format("{} × {} is not coarser than {} × {}", columns, rows, layout.columns, layout.rows),
                   "readings can be averaged, not invented", "ask for at most as many columns and rows as were walked"};
  Reduced result{coarse_layout(layout, columns, rows), {}};
  const std::size_t count = result.layout.stations.size();
  std::vector<double> light(count, 0), read(count, 0), whole(count, 0);
  const std::vector<Rectangle> fine = station_boxes(layout), coarse = station_boxes(result.layout);
  const double cell_width = layout.measured.width_m / columns, cell_depth = layout.measured.depth_m / rows;
  for (std::size_t i = 0; i < fine.size(); ++i) {
    const Rectangle& f = fine[i];
    const auto first = [](double from, double origin, double cell) {
      return std::max(0, static_cast<int>((from - origin) / cell - 1e-9));
    };
    const int c0 = first(f.left_m, layout.measured.left_m, cell_width),
              c1 = std::min(columns - 1, first(f.left_m + f.width_m, layout.measured.left_m, cell_width));
    const int r0 = first(f.front_m, layout.measured.front_m, cell_depth),
              r1 = std::min(rows - 1, first(f.front_m + f.depth_m, layout.measured.front_m, cell_depth));
    for (int row = r0; row <= r1; ++row)
      for (int column = c0; column <= c1; ++column) {
        const std::size_t cell = static_cast<std::size_t>(result.layout.index(column, row));
        const Rectangle& c = coarse[cell];
        const double area = shared(f.left_m, f.left_m + f.width_m, c.left_m, c.left_m + c.width_m) *
                            shared(f.front_m, f.front_m + f.depth_m, c.front_m, c.front_m + c.depth_m);
        whole[cell] += area;
        if (std::isnan(ppfd[i])) continue;
        read[cell] += area;
        light[cell] += area * ppfd[i];
      }
  }
  for (std::size_t cell = 0; cell < count; ++cell)
    result.ppfd.push_back(read[cell] >= least_cell_read * whole[cell] && read[cell] > 0 ? light[cell] / read[cell]
                                                                                        : unread);
  return result;
}

}  // namespace sunbreak
