#include "core/settle/settle_lattice.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {

constexpr double same_m = 1e-6;

bool covers(const Rectangle& area, const Layout& stations) {
  const Rectangle& m = stations.measured;
  return area.left_m <= m.left_m + same_m && area.front_m <= m.front_m + same_m &&
         area.left_m + area.width_m >= m.left_m + m.width_m - same_m &&
         area.front_m + area.depth_m >= m.front_m + m.depth_m - same_m;
}

/// Of a row of lines: the middle one, or both where their number is even.
std::vector<int> middles(int count) {
  return count % 2 == 1 ? std::vector<int>{count / 2} : std::vector<int>{count / 2 - 1, count / 2};
}

}  // namespace

SettleLattice settle_lattice(const Rectangle& area, const Layout& stations) {
  SettleLattice l;
  l.area = area;
  const double longer = std::max(area.width_m, area.depth_m);
  const auto cells = [&](double side) {
    return std::max(2, static_cast<int>(std::lround(settle_cells * side / longer)));
  };
  l.columns = cells(area.width_m), l.rows = cells(area.depth_m);
  const auto x = [&](double share) { return area.left_m + share * area.width_m; };
  const auto y = [&](double share) { return area.front_m + share * area.depth_m; };
  const auto middle = [](int i, int count) { return (i + 0.5) / count; };
  for (int j = 0; j < l.rows; ++j)
    for (int i = 0; i < l.columns; ++i) l.places.push_back({x(middle(i, l.columns)), y(middle(j, l.rows)), 0});
  l.cells = l.places.size();
  for (const double side : {0.0, 1.0}) {
    for (int i = 0; i < l.columns; ++i) l.places.push_back({x(middle(i, l.columns)), y(side), 0});
    for (int j = 0; j < l.rows; ++j) l.places.push_back({x(side), y(middle(j, l.rows)), 0});
  }
  l.edge = l.places.size() - l.cells;
  if (stations.is_lattice() && covers(area, stations)) {
    for (const int j : middles(stations.rows))
      for (const int i : middles(stations.columns))
        l.places.push_back({stations.xs_m[static_cast<std::size_t>(i)], stations.ys_m[static_cast<std::size_t>(j)], 0});
    l.center = l.places.size() - l.cells - l.edge;
    for (const double at_y : {stations.ys_m.front(), stations.ys_m.back()})
      for (const double at_x : {stations.xs_m.front(), stations.xs_m.back()}) l.places.push_back({at_x, at_y, 0});
  } else {
    l.places.push_back({x(0.5), y(0.5), 0});
    l.center = 1;
    for (const int j : {0, l.rows - 1})
      for (const int i : {0, l.columns - 1}) l.places.push_back({x(middle(i, l.columns)), y(middle(j, l.rows)), 0});
  }
  l.corners = 4;
  return l;
}

}  // namespace sunbreak
