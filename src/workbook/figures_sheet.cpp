#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/figures/figure_table.h"
#include "core/quantity/daily_light.h"
#include "evaluation/part_read.h"
#include "workbook/sheets.h"

namespace sunbreak::workbook {
namespace {

constexpr int title_row = 0, words_row = 1, head_row = 3, watts_row = 4, hours_row = 5, area_row = 6, read_row = 7,
              first_figure = 9;
constexpr double alike = 1e-9, label_width = 26, value_width = 13;

/// What a figure is as a formula, and what that gives.
struct Live {
  std::string formula;
  double value = unread;
};

class Column {
 public:
  Column(const SweepSheet& of, const SweepFigures& figures, double hours, int column, int mean_row)
      : of_(of), figures_(figures), hours_(hours), column_(column), mean_row_(mean_row) {
    for (std::size_t i = 0; i < of.view->ppfd.size(); ++i) {
      const double e = of.view->ppfd[i];
      if (std::isnan(e)) continue;
      sum_ += e, count_ += 1, lowest_ = std::min(lowest_, e), highest_ = std::max(highest_, e);
      weighted_ += e * of.view->layout.stations[i].weight, weight_ += of.view->layout.stations[i].weight;
    }
  }

  Live live(std::string_view id) const {
    const bool alike_weights = of_.weights.empty();
    const double mean = alike_weights ? sum_ / count_ : weighted_ / weight_;
    const std::string mean_cell = at(mean_row_), watts = at(watts_row), area = at(area_row);
    if (id == "mean_ppfd")
      return {alike_weights ? fmt::format("=AVERAGE({})", of_.ppfd)
                            : fmt::format("=SUMPRODUCT({0},{1})/SUM({1})", of_.ppfd, of_.weights),
              mean};
    if (id == "lowest_ppfd") return {fmt::format("=MIN({})", of_.ppfd), lowest_};
    if (id == "highest_ppfd") return {fmt::format("=MAX({})", of_.ppfd), highest_};
    if (id == "lowest_over_mean") return {fmt::format("=MIN({})/{}", of_.ppfd, mean_cell), lowest_ / mean};
    if (id == "lowest_over_highest") return {fmt::format("=MIN({0})/MAX({0})", of_.ppfd), lowest_ / highest_};
    if (id == "ppf_umol_s") return {fmt::format("={}*{}", mean_cell, area), mean * figures_.area_m2};
    if (id == "dli_mean_mol_m2_d")
      return {fmt::format("={}*{}*3600/1000000", mean_cell, at(hours_row)), dli_mol_m2_d(mean, hours_)};
    if (id == "canopy_efficacy_umol_j" && of_.sweep->power_w)
      return {fmt::format("={}*{}/{}", mean_cell, area, watts), mean * figures_.area_m2 / *of_.sweep->power_w};
    return {};
  }

 private:
  std::string at(int row) const { return cell_name(row, column_); }

  const SweepSheet& of_;
  const SweepFigures& figures_;
  double hours_;
  int column_;
  int mean_row_;
  double sum_ = 0, count_ = 0, weighted_ = 0, weight_ = 0, lowest_ = INFINITY, highest_ = -INFINITY;
};

/// Below the figures: of sweeps that were read in part what is estimated of their whole area. Gives the row after.
int add_estimates(BookWriter& book, lxw_worksheet* sheet, const evaluation::Evaluation& evaluation,
                  const std::vector<SweepSheet>& sweeps, int top, UnitSystem units) {
  const auto part = [&](const SweepSheet& of) { return evaluation::is_read_in_part(evaluation, of.sweep->id); };
  if (std::ranges::none_of(sweeps, part)) return top;
  book.text(sheet, top, 0, "Over the whole measured area, estimated by what was read", Look::Head);
  int row = top + 1;
  for (const Figure& f : figures()) {
    bool any = false;
    for (std::size_t s = 0; s < sweeps.size(); ++s) {
      const Budget* budget = part(sweeps[s]) ? evaluation.budget(sweeps[s].sweep->id) : nullptr;
      const auto whole = budget ? budget->whole(f.id) : std::nullopt;
      if (!whole) continue;
      any = true;
      const int column = 2 + 2 * static_cast<int>(s);
      const double per = shown_per_stored(f, units);
      book.number(sheet, row, column, whole->value * per, f.decimals);
      book.number(sheet, row, column + 1, whole->expanded * per, f.decimals + 1, Look::Quiet);
    }
    if (!any) continue;
    book.text(sheet, row, 0, fmt::format("{}, estimated", f.label));
    book.text(sheet, row++, 1, shown_unit(f, units), Look::Quiet);
  }
  return row + 1;
}

/// A small table of the sweeps' means, which the chart beside it is of.
void add_means_chart(BookWriter& book, lxw_worksheet* sheet, const std::vector<SweepSheet>& sweeps, int mean_row,
                     int top, const std::vector<double>& means) {
  if (sweeps.size() < 2 || mean_row < 0) return;
  book.text(sheet, top, 0, "Sweep", Look::Head);
  book.text(sheet, top, 1, "Mean PPFD", Look::Head);
  const int last = top + static_cast<int>(sweeps.size());
  for (std::size_t s = 0; s < sweeps.size(); ++s) {
    const int row = top + 1 + static_cast<int>(s);
    book.text(sheet, row, 0, sweeps[s].name);
    if (std::isfinite(means[s]))
      book.formula(sheet, row, 1, "=" + cell_name(mean_row, 2 + 2 * static_cast<int>(s)), means[s], 0);
  }
  lxw_chart* chart = workbook_add_chart(book.book(), LXW_CHART_COLUMN);
  const std::string& name = book.name_of(sheet);
  lxw_chart_series* series = chart_add_series(chart, ("=" + range_name(name, top + 1, 0, last, 0)).c_str(),
                                              ("=" + range_name(name, top + 1, 1, last, 1)).c_str());
  lxw_chart_fill fill{};
  fill.color = 0x1D6470;
  chart_series_set_fill(series, &fill);
  chart_title_set_name(chart, "Mean PPFD, µmol/m²/s");
  chart_legend_set_position(chart, LXW_CHART_LEGEND_NONE);
  worksheet_insert_chart(sheet, static_cast<lxw_row_t>(top), 3, chart);
}

}  // namespace

void fill_figures_sheet(BookWriter& book, lxw_worksheet* sheet, const evaluation::Evaluation& evaluation,
                        const std::vector<SweepSheet>& sweeps, UnitSystem units) {
  const record::TestRecord& b = evaluation.record();
  book.text(sheet, title_row, 0, record::title_of(b), Look::Title);
  book.text(sheet, words_row, 0,
            "Mean, lowest, highest, their ratios, PPF, efficacy and daily light are formulas over the sheets of the "
            "sweeps and the yellow cells; ± is expanded uncertainty (k = 2) as Sunbreak worked it out.",
            Look::Quiet);
  worksheet_set_column(sheet, 0, 0, label_width, nullptr);
  worksheet_set_column(sheet, 1, 1, value_width, nullptr);
  worksheet_set_column(sheet, 2, static_cast<lxw_col_t>(1 + 2 * std::max<std::size_t>(1, sweeps.size())), value_width,
                       nullptr);
  book.text(sheet, head_row, 0, "Figure", Look::Head);
  book.text(sheet, head_row, 1, "unit", Look::Head);
  book.text(sheet, watts_row, 0, "Watts at the wall");
  book.text(sheet, watts_row, 1, "W", Look::Quiet);
  book.text(sheet, hours_row, 0, "Hours of light a day");
  book.text(sheet, hours_row, 1, "h", Look::Quiet);
  book.text(sheet, area_row, 0, "Measured area");
  book.text(sheet, area_row, 1, "m²", Look::Quiet);
  book.text(sheet, read_row, 0, "Stations");
  int mean_row = -1;
  int row = first_figure;
  for (const Figure& f : figures()) {
    if (!f.value) continue;
    if (f.id == "mean_ppfd") mean_row = row;
    book.text(sheet, row, 0, f.label);
    book.text(sheet, row++, 1, shown_unit(f, units), Look::Quiet);
  }
  std::vector<double> means(sweeps.size(), unread);
  for (std::size_t s = 0; s < sweeps.size(); ++s) {
    const SweepSheet& of = sweeps[s];
    const SweepFigures* figures_of = evaluation.figures(of.sweep->id);
    if (!figures_of) continue;
    means[s] = figures_of->mean_ppfd;
    const int column = 2 + 2 * static_cast<int>(s);
    book.text(sheet, head_row, column, of.name, Look::Head);
    book.text(sheet, head_row, column + 1, "±", Look::Head);
    book.number(sheet, watts_row, column, of.sweep->power_w.value_or(unread), 1, Look::Input);
    book.number(sheet, hours_row, column, b.test.photoperiod_h, 1, Look::Input);
    book.number(sheet, area_row, column, figures_of->area_m2, 4);
    book.text(sheet, read_row, column, read_words(figures_of->stations - figures_of->missing, figures_of->stations));
    const Budget* budget = evaluation.budget(of.sweep->id);
    const FigureSource source(of.view->layout, of.view->ppfd, *figures_of);
    const Column formulas(of, *figures_of, b.test.photoperiod_h, column, mean_row);
    row = first_figure;
    for (const Figure& f : figures()) {
      if (!f.value) continue;
      const double value = f.value(source), per = shown_per_stored(f, units);
      const Live live = formulas.live(f.id);
      if (!live.formula.empty() && std::abs(live.value - value) <= alike * std::abs(value)) {
        const std::string scaled = per == 1 ? live.formula : fmt::format("=({})*{}", live.formula.substr(1), per);
        book.formula(sheet, row, column, scaled, value * per, f.decimals);
      } else {
        book.number(sheet, row, column, value * per, f.decimals);
      }
      if (const double expanded = budget ? budget->expanded(f.id) : unread; std::isfinite(expanded))
        book.number(sheet, row, column + 1, expanded * per, f.decimals + 1, Look::Quiet);
      ++row;
    }
  }
  worksheet_freeze_panes(sheet, head_row + 1, 2);
  row = add_estimates(book, sheet, evaluation, sweeps, row + 1, units);
  add_means_chart(book, sheet, sweeps, mean_row, row + 1, means);
}

}  // namespace sunbreak::workbook
