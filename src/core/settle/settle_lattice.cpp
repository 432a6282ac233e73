#include "core/settle/settle_lattice.h"

#include <algorithm>
#include <cmath>

#include "core/bench/edge_shape.h"

namespace sunbreak {
namespace {

/// Loose spots say nothing of a spacing: so many places along the longer side.
constexpr int places_everywhere = 12;
/// A larger area's shares are counted on cells larger than a centimeter: its heights are many.
constexpr double most_shares = 40'000;
constexpr double touching_m = 1e-6;

/// Lines with more of their spacing on either side, the last ones half of it or less from the ends of a side.
std::vector<double> reaching(std::vector<double> lines, double from, double to) {
  if (lines.size() < 2) return lines;
  const double pitch = (lines.back() - lines.front()) / static_cast<double>(lines.size() - 1);
  while (lines.front() - from > pitch / 2 + touching_m)
    lines.insert(lines.begin(), std::max(from + pitch / 2, lines.front() - pitch));
  while (to - lines.back() > pitch / 2 + touching_m) lines.push_back(std::min(to - pitch / 2, lines.back() + pitch));
  return lines;
}

Layout lattice_on(const Rectangle& measured, std::vector<double> xs, std::vector<double> ys) {
  Layout layout;
  layout.kind = GridKind::Inset;
  layout.footprint = {measured.width_m, measured.depth_m};
  layout.measured = measured;
  layout.columns = static_cast<int>(xs.size()), layout.rows = static_cast<int>(ys.size());
  const double weight = 1.0 / (layout.columns * layout.rows);
  for (int row = 0; row < layout.rows; ++row)
    for (int column = 0; column < layout.columns; ++column)
      layout.stations.push_back(
          {xs[static_cast<std::size_t>(column)], ys[static_cast<std::size_t>(row)], weight, column, row, {}});
  layout.xs_m = std::move(xs), layout.ys_m = std::move(ys);
  return layout;
}

std::vector<double> cell_middles(double from, double side, int count) {
  std::vector<double> middles;
  for (int i = 0; i < count; ++i) middles.push_back(from + (i + 0.5) * side / count);
  return middles;
}

}  // namespace

Vec3 SettleLattice::cell(std::size_t index) const {
  const auto across = static_cast<std::size_t>(columns);
  return {area.left_m + (static_cast<double>(index % across) + 0.5) * area.width_m / columns,
          area.front_m + (static_cast<double>(index / across) + 0.5) * area.depth_m / rows, 0};
}

SettleLattice settle_lattice(const Rectangle& area, const Layout& asked) {
  const double longer = std::max(area.width_m, area.depth_m);
  const double step_m = std::max(raster_step_m, std::sqrt(area.area_m2() / most_shares));
  SettleLattice l{area,
                  asked,
                  {},
                  AreaPlan(asked, area),
                  RasterPlan(asked, area, step_m),
                  RasterPlan(asked, area, longer / settle_cells),
                  0,
                  0,
                  1};
  l.columns = l.cells.columns(), l.rows = l.cells.rows();
  std::vector<double> shape;
  for (const Station& s : asked.stations) {
    l.places.push_back({s.x_m, s.y_m, 0});
    shape.push_back(edge_shape(area, s.x_m, s.y_m));
  }
  if (const double at_edge = l.plan.edge(shape); at_edge > 0) l.edge_shape_at_edge = at_edge;
  return l;
}

Layout asked_places(const Rectangle& area, const Layout& stations, bool everywhere) {
  const double longer = std::max(area.width_m, area.depth_m);
  const auto count = [&](double side) {
    return std::max(2, static_cast<int>(std::lround(places_everywhere * side / longer)));
  };
  if (stations.kind == GridKind::Spots && everywhere)
    return lattice_on(area, cell_middles(area.left_m, area.width_m, count(area.width_m)),
                      cell_middles(area.front_m, area.depth_m, count(area.depth_m)));
  const Rectangle& m = stations.measured;
  const double left = std::min(area.left_m, m.left_m), front = std::min(area.front_m, m.front_m),
               right = std::max(area.left_m + area.width_m, m.left_m + m.width_m),
               back = std::max(area.front_m + area.depth_m, m.front_m + m.depth_m);
  const bool within = left > m.left_m - touching_m && front > m.front_m - touching_m &&
                      right < m.left_m + m.width_m + touching_m && back < m.front_m + m.depth_m + touching_m;
  if (within || !stations.is_lattice()) return stations;
  return lattice_on({left, front, right - left, back - front}, reaching(stations.xs_m, left, right),
                    reaching(stations.ys_m, front, back));
}

std::vector<double> samples_of(const RasterPlan& raster, std::span<const double> ppfd) {
  const auto across = static_cast<std::size_t>(raster.columns());
  std::vector<double> line(static_cast<std::size_t>(raster.station_columns())),
      samples(across * static_cast<std::size_t>(raster.rows()));
  for (int row = 0; row < raster.rows(); ++row)
    raster.sample_row(ppfd, row, line, std::span(samples).subspan(static_cast<std::size_t>(row) * across, across));
  return samples;
}

}  // namespace sunbreak
