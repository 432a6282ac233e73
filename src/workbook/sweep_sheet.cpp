#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"
#include "workbook/sheets.h"

namespace sunbreak::workbook {
namespace {

using evaluation::StationState;
using evaluation::SweepView;

constexpr double grid_width = 6, side_width = 12;
constexpr int first_row = 4, first_column = 1;

bool weights_alike(const Layout& layout) {
  return std::ranges::all_of(
      layout.stations, [&](const Station& s) { return std::abs(s.weight - layout.stations.front().weight) <= 1e-12; });
}

/// In the unit of the tape, to a tenth of it.
double in_shown_length(double m, UnitSystem units) { return std::round(10 * from_m(m, surface_unit(units))) / 10; }

/// A grid with the wall away from the door on top; returns its range.
template <typename Write>
std::string grid(BookWriter& book, lxw_worksheet* sheet, const Layout& layout, int top, const char* title,
                 UnitSystem units, const Write& write) {
  const int rows = layout.rows, columns = layout.columns;
  book.text(sheet, top, 0, title, Look::Head);
  for (int c = 0; c < columns; ++c)
    book.number(sheet, top, first_column + c, in_shown_length(layout.xs_m[static_cast<std::size_t>(c)], units),
                as_it_comes, Look::Quiet);
  for (int r = 0; r < rows; ++r) {
    const int row = top + 1 + (rows - 1 - r);
    book.number(sheet, row, 0, in_shown_length(layout.ys_m[static_cast<std::size_t>(r)], units), as_it_comes,
                Look::Quiet);
    for (int c = 0; c < columns; ++c) write(row, first_column + c, static_cast<std::size_t>(r * columns + c));
  }
  return range_name(book.name_of(sheet), top + 1, first_column, top + rows, first_column + columns - 1);
}

/// The row across the middle of the bench as a line.
void add_profile(BookWriter& book, lxw_worksheet* sheet, const Layout& layout, UnitSystem units) {
  const std::string& name = book.name_of(sheet);
  const int row = first_row + 1 + (layout.rows - 1 - layout.rows / 2), last = first_column + layout.columns - 1;
  lxw_chart* chart = workbook_add_chart(book.book(), LXW_CHART_SCATTER_STRAIGHT_WITH_MARKERS);
  lxw_chart_series* series =
      chart_add_series(chart, ("=" + range_name(name, first_row, first_column, first_row, last)).c_str(),
                       ("=" + range_name(name, row, first_column, row, last)).c_str());
  chart_series_set_name(series, "PPFD across the middle");
  chart_title_set_name(chart, "PPFD across the middle, µmol/m²/s");
  chart_axis_set_name(chart->x_axis, units == UnitSystem::Metric ? "from the left wall, cm" : "from the left wall, in");
  chart_legend_set_position(chart, LXW_CHART_LEGEND_NONE);
  worksheet_insert_chart(sheet, first_row, static_cast<lxw_col_t>(last + 2), chart);
}

}  // namespace

SweepSheet add_sweep_sheet(BookWriter& book, const evaluation::Evaluation& evaluation, const record::Sweep& sweep,
                           const SweepView& view, const std::string& configuration, const drawing::ScaleRange& range,
                           UnitSystem units) {
  SweepSheet made{&sweep, &view, evaluation::sweep_name(evaluation.record(), sweep, units), {}, {}};
  if (!configuration.empty()) made.name = configuration + ", " + made.name;
  lxw_worksheet* sheet = book.sheet(made.name);
  const Layout& layout = view.layout;
  const char* as_read = sweep.lux_k ? "as read, lx" : "as read";
  book.text(sheet, 0, 0, made.name, Look::Title);
  book.text(
      sheet, 1, 0,
      fmt::format("PPFD in µmol/m²/s seen from above, the door at the bottom; places in {} from the left wall and "
                  "from the door. Colors have one scale on all sheets: {:g} to {:g}.",
                  units == UnitSystem::Metric ? "cm" : "inches", range.low, range.high),
      Look::Quiet);
  worksheet_set_column(sheet, 0, 0, side_width, nullptr);
  const auto raw = [&](std::size_t i) {
    return view.states[i].kind == StationState::Read ? view.states[i].raw : unread;
  };
  if (layout.is_lattice()) {
    worksheet_set_column(sheet, first_column, static_cast<lxw_col_t>(layout.columns), grid_width, nullptr);
    made.ppfd = grid(book, sheet, layout, first_row, "corrected", units,
                     [&](int row, int column, std::size_t i) { book.light(sheet, row, column, view.ppfd[i], range); });
    int top = first_row + layout.rows + 3;
    grid(book, sheet, layout, top, as_read, units,
         [&](int row, int column, std::size_t i) { book.number(sheet, row, column, raw(i), 0); });
    if (!weights_alike(layout)) {
      top += layout.rows + 3;
      made.weights = grid(book, sheet, layout, top, "weights", units, [&](int row, int column, std::size_t i) {
        if (std::isfinite(view.ppfd[i])) book.number(sheet, row, column, layout.stations[i].weight, 4);
      });
    }
    worksheet_freeze_panes(sheet, first_row + 1, 1);
    add_profile(book, sheet, layout, units);
    return made;
  }
  const char* heads[] = {"station", "across", "deep", "corrected", as_read, "weight"};
  for (int c = 0; c < 6; ++c) book.text(sheet, first_row, c, heads[c], Look::Head);
  const int last = first_row + static_cast<int>(layout.stations.size());
  for (std::size_t i = 0; i < layout.stations.size(); ++i) {
    const Station& s = layout.stations[i];
    const int row = first_row + 1 + static_cast<int>(i);
    book.text(sheet, row, 0, s.name);
    book.number(sheet, row, 1, in_shown_length(s.x_m, units), 1);
    book.number(sheet, row, 2, in_shown_length(s.y_m, units), 1);
    book.light(sheet, row, 3, view.ppfd[i], range);
    book.number(sheet, row, 4, raw(i), 0);
    if (std::isfinite(view.ppfd[i])) book.number(sheet, row, 5, s.weight, 4);
  }
  made.ppfd = range_name(book.name_of(sheet), first_row + 1, 3, last, 3);
  if (!weights_alike(layout)) made.weights = range_name(book.name_of(sheet), first_row + 1, 5, last, 5);
  return made;
}

}  // namespace sunbreak::workbook
