#include "core/figures/rings.h"

#include <algorithm>
#include <cmath>

#include "core/figures/area_light.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

/// The band of distances from the left wall that a column stands for.
void set_band(Ring& ring, const Layout& layout, int column) {
  const auto& xs = layout.xs_m;
  const double middle = layout.footprint.width_m / 2;
  if (layout.kind == GridKind::Cells) {
    const double cell = layout.footprint.width_m / layout.columns;
    ring.outer_m = column * cell;
    ring.inner_m = std::min(middle, (column + 1) * cell);
  } else {
    ring.outer_m = column == 0 ? xs[0] : (xs[column - 1] + xs[column]) / 2;
    ring.inner_m = column + 1 < layout.columns ? std::min(middle, (xs[column] + xs[column + 1]) / 2) : middle;
  }
}

/// Half the distance between a line's neighbors, of those from the first to the last of a ring.
double arm_length(const std::vector<double>& lines, int line, int first, int last) {
  return (lines[static_cast<std::size_t>(std::min(line + 1, last))] -
          lines[static_cast<std::size_t>(std::max(line - 1, first))]) /
         2;
}

/// The length of the ring that a station stands for; alike where the ring is a line or a station.
double length_along(const Layout& layout, const Station& s, int ring) {
  const int right = layout.columns - 1 - ring, back = layout.rows - 1 - ring;
  if (ring >= right || ring >= back) return 1;
  const bool on_side = s.column == ring || s.column == right, on_end = s.row == ring || s.row == back;
  return (on_end ? arm_length(layout.xs_m, s.column, ring, right) : 0) +
         (on_side ? arm_length(layout.ys_m, s.row, ring, back) : 0);
}

}  // namespace

std::vector<Ring> rings(const Layout& layout, std::span<const double> ppfd) {
  if (!layout.is_lattice() || layout.kind == GridKind::Spots) return {};
  std::vector<Ring> result((std::min(layout.columns, layout.rows) + 1) / 2);
  for (std::size_t i = 0; i < result.size(); ++i) set_band(result[i], layout, static_cast<int>(i));
  std::vector<double> whole(result.size()), read(result.size());
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const Station& s = layout.stations[i];
    const int at = std::min({s.column, s.row, layout.columns - 1 - s.column, layout.rows - 1 - s.row});
    const auto r = static_cast<std::size_t>(at);
    const double length = length_along(layout, s, at);
    whole[r] += length;
    if (std::isnan(ppfd[i])) continue;
    result[r].mean_ppfd += length * ppfd[i];
    read[r] += length;
    ++result[r].read;
  }
  for (std::size_t r = 0; r < result.size(); ++r) {
    result[r].mean_ppfd = result[r].read > 0 ? result[r].mean_ppfd / read[r] : unread;
    result[r].read_share = read[r] / whole[r];
  }
  return result;
}

double edge_ppfd(const Layout& layout, std::span<const double> ppfd) {
  if (!layout.is_lattice()) return unread;
  double sum = 0, read = 0, whole = 0;
  const auto add = [&](int column, int row) {
    const auto at = static_cast<std::size_t>(layout.index(column, row));
    const double length = length_along(layout, layout.stations[at], 0);
    whole += length;
    if (std::isnan(ppfd[at])) return;
    sum += length * ppfd[at], read += length;
  };
  const int right = layout.columns - 1, back = layout.rows - 1;
  for (int column = 0; column <= right; ++column) {
    add(column, 0);
    if (back > 0) add(column, back);
  }
  for (int row = 1; row < back; ++row) {
    add(0, row);
    if (right > 0) add(right, row);
  }
  return read >= least_edge_read * whole ? sum / read : unread;
}

}  // namespace sunbreak
