#include "report/sweep_section.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/figures/figure_table.h"
#include "core/quantity/daily_light.h"
#include "core/quantity/number.h"
#include "core/quantity/uncertain_text.h"
#include "evaluation/part_read.h"
#include "evaluation/read_sweeps.h"
#include "report/page_figures.h"
#include "report/picture_section.h"
#include "report/trust_section.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

List figure_rows(const FigureSource& source, const Budget& budget, UnitSystem units, std::string_view lead) {
  List rows;
  const auto add = [&](const std::string& label, const std::string& value, const std::string& sure,
                       const std::string& where) {
    data row;
    row.set("label", label);
    row.set("value", value);
    row.set("sure", sure);
    row.set("where", where);
    rows.push_back(row);
  };
  for (const Figure* row : figures_led_by(lead)) {
    const Figure& f = *row;
    const double value = f.value ? f.value(source) : unread;
    if (std::isnan(value)) continue;
    const Told shown = shown_told(f, value, budget.expanded(f.id), units);
    const std::string unit = shown_unit(f, units);
    add(std::string(f.label), unit.empty() ? shown.value : shown.value + " " + unit, shown.sure(),
        f.where ? f.where(source, units) : "");
  }
  if (source.sweep.coverage) {
    const Coverage& c = *source.sweep.coverage;
    const Rectangle &largest = c.largest_rectangle, &centered = c.largest_centered_rectangle;
    add("Largest rectangle in band", c.in_band_m2 > 0 ? size_text(largest.width_m, largest.depth_m, units) : "none", "",
        centered.area_m2() > 0
            ? fmt::format("centered: {}; circle {} across", size_text(centered.width_m, centered.depth_m, units),
                          length_text(c.largest_centered_circle_m, units))
            : std::string("the middle itself is out of band"));
  }
  return rows;
}

List reading_rows(const evaluation::SweepView& view, UnitSystem units) {
  List rows;
  const auto add = [&](const std::vector<std::string>& texts) {
    List cells;
    for (const std::string& t : texts) cells.push_back(data(t));
    data row;
    row.set("cells", data(cells));
    rows.push_back(row);
  };
  const double unit = meters_per(surface_unit(units));
  const auto value = [&](std::size_t i) {
    return std::isnan(view.ppfd[i]) ? std::string("–") : ppfd_text(view.ppfd[i]);
  };
  if (!view.layout.is_lattice()) {
    for (std::size_t i = 0; i < view.layout.stations.size(); ++i) {
      const Station& s = view.layout.stations[i];
      add({s.name, short_number(s.x_m / unit, 1), short_number(s.y_m / unit, 1), value(i)});
    }
    return rows;
  }
  for (int row = view.layout.rows - 1; row >= 0; --row) {
    std::vector<std::string> texts{"y " + short_number(view.layout.ys_m[row] / unit, 1)};
    for (int column = 0; column < view.layout.columns; ++column) texts.push_back(value(view.layout.index(column, row)));
    add(texts);
  }
  std::vector<std::string> foot{std::string(symbol(surface_unit(units)))};
  for (const double x : view.layout.xs_m) foot.push_back("x " + short_number(x / unit, 1));
  add(foot);
  return rows;
}

List nominal_rows(const SweepFigures& f, UnitSystem units) {
  List rows;
  for (const NominalFootprint& nominal : f.nominal) {
    data row;
    row.set("size", size_text(nominal.size.width_m, nominal.size.depth_m, units));
    row.set("inside", ppfd_text(nominal.light.mean));
    row.set("edge", ppfd_text(nominal.light.edge));
    row.set("edge_daily", daily_light_text(dli_mol_m2_d(nominal.light.edge, f.photoperiod_h)));
    row.set("share", share_text(nominal.light.in_band));
    row.set("verdict", nominal.passes ? "passes" : "does not pass");
    rows.push_back(row);
  }
  return rows;
}

/// A sweep's row of the table of all; of one read in part what is estimated of its whole area.
void add_glance(data& row, const evaluation::Evaluation& evaluation, record::Id sweep, const Figure& lead,
                UnitSystem units) {
  const std::string_view ids[] = {"mean_ppfd", lead.id, "ppf_umol_s", "power_w", "canopy_efficacy_umol_j", "coverage"};
  const std::vector<evaluation::ToldFigure> told = evaluation::told_figures(evaluation, sweep, ids, units);
  const auto value = [&](std::string_view id, const char* without, bool unit = false) {
    const auto found = std::ranges::find(told, id, &evaluation::ToldFigure::id);
    return found == told.end() ? std::string(without) : unit ? found->value_with_unit() : found->value;
  };
  const SweepFigures& f = *evaluation.figures(sweep);
  row.set("stations", fmt::format("{}/{}{}", f.stations - f.missing, f.stations,
                                  evaluation::is_read_in_part(evaluation, sweep) ? ", estimated" : ""));
  row.set("mean", value("mean_ppfd", "–"));
  row.set("mean_sure", told.empty() || told.front().id != "mean_ppfd" ? std::string() : told.front().sure);
  // As with their ±, for which there is no room.
  row.set("evenness", value(lead.id, "–", true));
  row.set("ppf", value("ppf_umol_s", "–"));
  row.set("power", value("power_w", "not stated"));
  row.set("efficacy", value("canopy_efficacy_umol_j", "–"));
  row.set("in_band", value("coverage", "–", true));
}

}  // namespace

std::string grid_words(const Layout& layout, UnitSystem units) {
  const std::string count = layout.is_lattice() ? fmt::format("{} × {} stations", layout.columns, layout.rows)
                                                : fmt::format("{} stations", layout.stations.size());
  switch (layout.kind) {
    case GridKind::Cells:
      return count + " at the middles of equal cells that fill the footprint; each weighs the same";
    case GridKind::Nodes:
      return count + " from edge to edge; trapezoid weights (edge half, corner a quarter)";
    case GridKind::Inset:
      return fmt::format("{} inside {}; mean and PPF hold for that area alone, and nothing is said about the margin",
                         count, size_text(layout.measured.width_m, layout.measured.depth_m, units));
    case GridKind::Spots:
      return count +
             (layout.nine_point ? ", a spot check; mean by the nine-point Simpson rule" : ", a spot check; plain mean");
  }
  return count;
}

PrintedSweeps printed_sweeps(const evaluation::Evaluation& evaluation, const ReportOptions& options) {
  PrintedSweeps chosen = evaluation::read_sweeps(evaluation);
  if (!options.sweeps.empty())
    std::erase_if(chosen, [&](const auto& of) {
      return std::find(options.sweeps.begin(), options.sweeps.end(), of.first->id) == options.sweeps.end();
    });
  return chosen;
}

void add_sweeps(data& page, const evaluation::Evaluation& evaluation, const PrintedSweeps& printed,
                const drawing::ScaleRange& range, FigureSink& sink, const ReportOptions& options) {
  const record::TestRecord& b = evaluation.record();
  const UnitSystem units = options.units;
  const Figure& lead = sunbreak::figure(b.test.evenness_lead);
  List sweeps;
  for (const auto& [sweep, laid_out] : printed) {
    const evaluation::SweepView& view = *laid_out;
    const SweepFigures& f = *evaluation.figures(sweep->id);
    const Budget& budget = *evaluation.budget(sweep->id);
    const std::optional<Band> band = evaluation::figure_context(b, *sweep, {}).target;
    const Field field(view.layout, view.ppfd);
    data s;
    s.set("sweep_anchor", fmt::format("sweep-{}", sweep->id));
    s.set("height", length_text(b.rung(sweep->rung_id)->height_m, units));
    s.set("dimmer", short_number(b.stop(sweep->stop_id)->percent, 1) + " %");
    const FigureSource source(view.layout, view.ppfd, f);
    add_glance(s, evaluation, sweep->id, lead, units);
    s.set("state",
          fmt::format("{}. {}.", read_words(f.stations - f.missing, f.stations), grid_words(view.layout, units)));
    List notices;
    if (f.missing > 0) notices.push_back(data(evaluation::part_read_notice(evaluation, sweep->id, &budget, units)));
    if (view.layout.kind == GridKind::Spots) notices.push_back(data("Spot check: a quick look, not a survey."));
    if (view.drift.significant())
      notices.push_back(
          data(fmt::format("The reference station moved by {} while this sweep was walked; readings "
                           "are scaled to its start, raw values are in the data package.",
                           uncertain_difference(100 * view.drift.largest_change(), unread, 1, "%"))));
    notices.push_back(data(evaluation.walked(sweep->id).words));
    const bool wanted = has(options.parts, PagePart::Readings);
    if (wanted && f.stations > options.most_readings_printed)
      notices.push_back(data(fmt::format("The table of its {} readings is in the page as written.", f.stations)));
    s.set("notices", data(notices));
    add_trust(s, budget, *evaluation.evidence(sweep->id), lead.id, units);
    s.set("map", sink.put(map_figure(b, view, band, range, units)));
    s.set("figures", data(figure_rows(source, budget, units, lead.id)));
    s.set("length_unit", std::string(symbol(surface_unit(units))));
    s.set("has_rings", !f.rings.empty());
    if (!f.rings.empty()) s.set("rings", sink.put(rings_figure(f, range, band, units)));
    s.set("has_field", field.exists());
    if (field.exists()) s.set("curve", sink.put(area_curve_figure(view, band, units)));
    s.set("has_nominal", !f.nominal.empty());
    s.set("nominal", data(nominal_rows(f, units)));
    s.set("nominal_rule", fmt::format("Rule: {}.", figure("nominal").formula));
    const bool tabled = wanted && f.stations <= options.most_readings_printed;
    s.set("has_readings", tabled);
    s.set("readings_note", "Corrected PPFD in µmol/m²/s; the first row is the far one.");
    s.set("rows", data(tabled ? reading_rows(view, units) : List()));
    if (!sweep->control.empty()) s.set("control", sweep->control);
    add_pictures(s, pictures_of(b, [&](const record::Picture& p) { return p.sweep_id == sweep->id; }), options);
    sweeps.push_back(s);
  }
  page.set("sweeps", data(sweeps));
}

}  // namespace sunbreak::report
