#include "core/figures/rings.h"

#include <algorithm>
#include <cmath>

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

}  // namespace

std::vector<Ring> rings(const Layout& layout, std::span<const double> ppfd) {
  if (!layout.is_lattice() || layout.kind == GridKind::Spots) return {};
  std::vector<Ring> result((std::min(layout.columns, layout.rows) + 1) / 2);
  for (std::size_t i = 0; i < result.size(); ++i) set_band(result[i], layout, static_cast<int>(i));
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const Station& s = layout.stations[i];
    if (std::isnan(ppfd[i])) continue;
    Ring& ring = result[std::min({s.column, s.row, layout.columns - 1 - s.column, layout.rows - 1 - s.row})];
    ring.mean_ppfd += ppfd[i];
    ++ring.read;
  }
  for (Ring& ring : result) ring.mean_ppfd = ring.read > 0 ? ring.mean_ppfd / ring.read : unread;
  return result;
}

}  // namespace sunbreak
