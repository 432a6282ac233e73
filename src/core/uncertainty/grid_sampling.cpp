#include "core/uncertainty/grid_sampling.h"

#include <cmath>

#include "core/sweep/field.h"

namespace sunbreak {
namespace {

/// Mean over the lines of stations across one axis of the slope out through both ends, in PPFD a step of the grid. The
/// step between the last two stations is carried on to the edge, `steps_away` further out, by how it changes.
template <typename At>
double outward_step(int count, int lines, double steps_away, At at) {
  double sum = 0;
  int known = 0;
  for (int line = 0; line < lines; ++line) {
    const auto outward = [&](int last, int inward) {
      const double outer = at(last, line) - at(last + inward, line),
                   next = at(last + inward, line) - at(last + 2 * inward, line);
      return outer + steps_away * (outer - next);
    };
    const double step = outward(count - 1, -1) + outward(0, 1);
    if (!std::isnan(step)) sum += step, ++known;
  }
  return known > 0 ? sum / known : 0;
}

}  // namespace

HalfGrids half_grids(const Layout& layout, std::span<const double> ppfd) {
  HalfGrids halves{std::vector<double>(ppfd.size(), unread), std::vector<double>(ppfd.size(), unread)};
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    const Station& s = layout.stations[i];
    ((s.column + s.row) % 2 == 0 ? halves.first : halves.second)[i] = ppfd[i];
  }
  return halves;
}

std::vector<double> filled(const Layout& layout, std::span<const double> half) {
  std::vector<double> whole(half.begin(), half.end());
  for (std::size_t i = 0; i < half.size(); ++i) {
    if (!std::isnan(half[i])) continue;
    const Station& s = layout.stations[i];
    double sum = 0;
    int known = 0;
    const auto take = [&](int column, int row) {
      if (column < 0 || row < 0 || column >= layout.columns || row >= layout.rows) return;
      const double ppfd = half[static_cast<std::size_t>(layout.index(column, row))];
      if (!std::isnan(ppfd)) sum += ppfd, ++known;
    };
    take(s.column - 1, s.row);
    take(s.column + 1, s.row);
    take(s.column, s.row - 1);
    take(s.column, s.row + 1);
    if (known > 0) whole[i] = sum / known;
  }
  return whole;
}

double edge_term(const Layout& layout, std::span<const double> ppfd) {
  if (!layout.is_lattice() || layout.columns < 3 || layout.rows < 3) return 0;
  double sum = 0;
  int read = 0;
  for (const double value : ppfd)
    if (!std::isnan(value)) sum += value, ++read;
  if (read == 0 || !(sum > 0)) return 0;
  const auto value = [&](int column, int row) { return ppfd[static_cast<std::size_t>(layout.index(column, row))]; };
  const bool cells = layout.kind == GridKind::Cells;
  const double away = cells ? 1 : 0.5;
  const double across = outward_step(layout.columns, layout.rows, away, value),
               deep = outward_step(layout.rows, layout.columns, away,
                                   [&](int row, int column) { return value(column, row); });
  const double factor = cells ? 1.0 / 24 : -1.0 / 12;
  const double term =
      across / (cells ? layout.columns : layout.columns - 1) + deep / (cells ? layout.rows : layout.rows - 1);
  return factor * term / (sum / read);
}

}  // namespace sunbreak
