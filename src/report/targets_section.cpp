#include "report/targets_section.h"

#include <fmt/format.h>

#include "core/figures/figure_table.h"
#include "evaluation/crop_targets.h"

namespace sunbreak::report {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

void add_targets_section(data& page, const evaluation::Evaluation& evaluation, const PrintedSweeps& printed,
                         const ReportOptions& options) {
  const record::TestRecord& b = evaluation.record();
  const auto all = options.targets.empty() ? evaluation::shipped_targets() : options.targets;
  const auto targets = evaluation::targets_of_set(all, evaluation::target_list_of(b, all));
  std::vector<Band> bands;
  List names, rows;
  for (const record::CropTarget& t : targets) {
    bands.push_back(evaluation::band_of(t, t.photoperiod_h));
    data one;
    one.set("name", t.name);
    one.set("band",
            fmt::format("{:.0f}–{:.0f}, {} h", bands.back().low, bands.back().high, short_number(t.photoperiod_h, 1)));
    names.push_back(one);
  }
  for (const auto& [sweep, view] : printed) {
    const auto fits = evaluation.target_fits(sweep->id, bands);
    if (fits.empty()) continue;
    List cells;
    for (const TargetFit& fit : fits) {
      data cell;
      cell.set("share", in_band_text(fit.coverage));
      cell.set("tone", fit.passes ? "n" : "r");
      cells.push_back(cell);
    }
    data row;
    row.set("height", length_text(b.rung(sweep->rung_id)->height_m, options.units));
    row.set("dimmer", short_number(b.stop(sweep->stop_id)->percent, 1) + " %");
    row.set("fits", data(cells));
    rows.push_back(row);
  }
  page.set("has_targets", !rows.empty() && !names.empty());
  if (rows.empty() || names.empty()) return;
  page.set("targets_list", fmt::format("{}: {}", targets.front().set_name,
                                       targets.front().reason.empty() ? std::string("a list of the tester.")
                                                                      : targets.front().reason + "."));
  page.set("targets_rule", std::string(figure("nominal").formula));
  page.set("targets", data(names));
  page.set("target_rows", data(rows));
}

}  // namespace sunbreak::report
