#include <cmath>

#include "evaluation/stair_records.h"
#include "workbook/sheets.h"

namespace sunbreak::workbook {
namespace {

/// Of longer logs every second, third … sample is told; the package has them all.
constexpr std::size_t most_samples = 20'000;

void add_line(BookWriter& book, lxw_worksheet* sheet, int last_row, int x_column, int y_column, const char* title,
              const char* x_title, int at_row, int at_column) {
  const std::string& name = book.name_of(sheet);
  lxw_chart* chart = workbook_add_chart(book.book(), LXW_CHART_SCATTER_STRAIGHT);
  chart_add_series(chart, ("=" + range_name(name, table_head_row + 1, x_column, last_row, x_column)).c_str(),
                   ("=" + range_name(name, table_head_row + 1, y_column, last_row, y_column)).c_str());
  chart_title_set_name(chart, title);
  chart_axis_set_name(chart->x_axis, x_title);
  chart_legend_set_position(chart, LXW_CHART_LEGEND_NONE);
  worksheet_insert_chart(sheet, static_cast<lxw_row_t>(at_row), static_cast<lxw_col_t>(at_column), chart);
}

}  // namespace

void add_log_sheet(BookWriter& book, const evaluation::Evaluation& evaluation) {
  const auto& samples = evaluation.log().samples;
  if (samples.empty()) return;
  lxw_worksheet* sheet =
      book.table("Wall log", "Warm-up and wall log",
                 {{"minutes"}, {"light as read"}, {"watts"}, {"volts"}, {"amperes"}, {"VA"}, {"power factor"}, {"Hz"}});
  const std::size_t every = (samples.size() + most_samples - 1) / most_samples;
  if (every > 1)
    book.text(sheet, 1, 0,
              "Thinned: one of every " + std::to_string(every) + " samples. The data package has them all.",
              Look::Quiet);
  int row = table_head_row;
  for (std::size_t i = 0; i < samples.size(); i += every) {
    const auto& s = samples[i];
    book.number(sheet, ++row, 0, (s.time_s - samples.front().time_s) / 60, 2);
    int column = 1;
    for (const double value :
         {s.light_raw, s.power_w, s.voltage_v, s.current_a, s.apparent_va, s.power_factor, s.frequency_hz})
      book.number(sheet, row, column, value, column >= 3 ? 2 : 1), ++column;
  }
  add_line(book, sheet, row, 0, 1, "Light at the reference station", "minutes", table_head_row, 9);
  add_line(book, sheet, row, 0, 2, "Watts at the wall", "minutes", table_head_row + 16, 9);
}

void add_stair_sheet(BookWriter& book, const evaluation::Evaluation& evaluation) {
  const auto stair = evaluation::stair_of(evaluation.record());
  if (!stair) return;
  lxw_worksheet* sheet = book.table("Stair", "Dimmer's stair",
                                    {{"dial, %"},
                                     {"share of light"},
                                     {"spread"},
                                     {"watts"},
                                     {"power factor"},
                                     {"share of watts"},
                                     {"light per watt"},
                                     {"off linear"}});
  int row = table_head_row;
  for (const DimmingPoint& p : stair.value().rows) {
    book.number(sheet, ++row, 0, p.dial_pct, 1);
    int column = 1;
    for (const auto& value :
         {p.light_factor, p.spread, p.power_w, p.power_factor, p.power_share, p.relative_efficacy, p.off_linear})
      book.number(sheet, row, column, value.value_or(unread), column == 3 ? 1 : 3), ++column;
  }
  add_line(book, sheet, row, 0, 1, "Share of light against the dial", "dial, %", table_head_row, 9);
}

}  // namespace sunbreak::workbook
