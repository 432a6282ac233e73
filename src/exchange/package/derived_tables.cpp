#include "exchange/package/derived_tables.h"

#include <fmt/format.h>

#include <cmath>

#include "core/figures/figure_table.h"
#include "evaluation/test_light.h"
#include "exchange/package/audit_tables.h"
#include "exchange/package/csv_writer.h"
#include "record/configurations.h"

namespace sunbreak::exchange {
namespace {

using namespace evaluation;

const char* state_name(const StationState& state) {
  return state.kind == StationState::Read ? "read" : state.kind == StationState::Missing ? "missing" : "untouched";
}

/// For people: without what arithmetic leaves behind the tenth digit.
std::string rounded_cell(double value) { return std::isnan(value) ? "" : fmt::format("{:.10g}", value); }

std::string station_head(bool for_spreadsheet, bool configured) {
  if (!for_spreadsheet) return "sweep_id,height_m,dimmer_pct,station,x_m,y_m,raw,ppfd_umol_m2_s,state\r\n";
  return std::string(configured ? "configuration," : "") +
         "height_cm,dimmer_pct,row_from_door,column_from_left,x_cm,y_cm,raw,ppfd_umol_m2_s,state,station_name\r\n";
}

/// `ids` of sweeps are those of the package; not asked for in a table for a spreadsheet, where `configuration` names
/// the state where there are several.
void append_stations(std::string& csv, const Evaluation& evaluation, const PlainIds& ids, bool for_spreadsheet,
                     const std::string& configuration) {
  const TestRecord& record = evaluation.record();
  for (const Sweep& sweep : record.sweeps) {
    const SweepView* view = evaluation.view(sweep.id);
    if (!view) continue;
    const double height_m = record.rung(sweep.rung_id)->height_m, percent = record.stop(sweep.stop_id)->percent;
    for (std::size_t i = 0; i < view->states.size(); ++i) {
      const Station& s = view->layout.stations[i];
      const StationState& state = view->states[i];
      const std::string raw = state.kind == StationState::Read ? number_cell(state.raw) : "";
      if (for_spreadsheet)
        csv += (configuration.empty() ? "" : spreadsheet_cell(configuration) + ",") +
               fmt::format("{:.6g},{:.6g},{},{},{:.6g},{:.6g},{},{},{},{}\r\n", height_m * 100, percent, s.row + 1,
                           s.column + 1, s.x_m * 100, s.y_m * 100, raw, rounded_cell(view->ppfd[i]), state_name(state),
                           spreadsheet_cell(s.name));
      else
        csv +=
            fmt::format("{},{},{},{},{},{},{},{},{}\r\n", ids.at(sweep.id), number_cell(height_m), number_cell(percent),
                        i, number_cell(s.x_m), number_cell(s.y_m), raw, number_cell(view->ppfd[i]), state_name(state));
    }
  }
}

/// What was found of the whole light, and the reference rooms; the settings' is the first one's.
void append_light(std::string& csv, const TestLight& light, const std::string& configuration) {
  const auto add = [&](std::string_view quantity, std::optional<double> height_m, const FoundValue& v,
                       std::string_view unit) {
    if (std::isfinite(v.value))
      csv += fmt::format("{},{},{},{},{},{}\r\n", configuration, quantity, height_m ? number_cell(*height_m) : "",
                         number_cell(v.value), std::isfinite(v.expanded) ? number_cell(v.expanded) : "", unit);
  };
  const WholeLight& w = light.found();
  add("ppf", {}, light.ppf_umol_s(), "umol/s");
  add("efficacy", {}, light.efficacy_umol_j(), "umol/J");
  for (const Utilization& u : w.utilization) add("utilization", u.height_m, u.share, "1");
  add("half_angle", {}, w.half_angle_deg, "degrees");
  add("wall_reflectance", {}, w.wall_reflectance, "1");
  add("offset_x", {}, w.offset_x_m, "m");
  add("offset_y", {}, w.offset_y_m, "m");
  for (std::size_t unit = 0; unit < w.roll_deg.size(); ++unit) {
    add(fmt::format("unit_{}_right_side_lower", unit + 1), {}, w.roll_deg[unit], "degrees");
    add(fmt::format("unit_{}_far_side_lower", unit + 1), {}, w.pitch_deg[unit], "degrees");
  }
  for (const ReferenceFigures& r : light.in_reference_rooms()) {
    const std::string room = r.room == "open floor" ? "open_floor" : "white_tent";
    add("restated_" + room + "_mean_ppfd", r.height_m, r.mean_ppfd, "umol/m2/s");
    add("restated_" + room + "_efficacy", r.height_m, r.efficacy_umol_j, "umol/J");
  }
}

void append_figures(std::string& csv, const Evaluation& evaluation, const PlainIds& ids,
                    WithUncertainty with_uncertainty) {
  for (const Sweep& sweep : evaluation.record().sweeps) {
    const Id id = sweep.id;
    const SweepFigures* f = evaluation.figures(id);
    if (!f) continue;
    const SweepView& view = *evaluation.view(id);
    const FigureSource source(view.layout, view.ppfd, *f);
    const Budget* budget = with_uncertainty == WithUncertainty::Yes ? evaluation.budget(id) : nullptr;
    for (const Figure& figure : figures()) {
      const double value = figure.value ? figure.value(source) : unread;
      if (!std::isfinite(value)) continue;
      const double expanded = budget ? budget->expanded(figure.id) : unread;
      csv += fmt::format("{},{},{},{},{},{}\r\n", ids.at(id), figure.id, number_cell(value),
                         std::isfinite(expanded) ? number_cell(expanded) : "", quoted_cell(figure.unit),
                         quoted_cell(figure.formula));
    }
  }
}

}  // namespace

Archive derived_tables(const Evaluations& evaluations, const PlainIds& sweeps, const PlainIds& configurations,
                       WithLight with_light, const std::vector<Audit>& audits, WithUncertainty with_uncertainty) {
  Archive tables;
  std::string& stations = tables["stations.csv"] = station_head(false, false);
  std::string& figures_csv = tables["figures.csv"] = "sweep_id,figure,value,expanded_k2,unit,formula\r\n";
  std::string found_csv, audit_csv, verdict_csv;
  for (std::size_t i = 0; i < evaluations.size(); ++i) {
    const auto& evaluation = evaluations[i];
    append_stations(stations, *evaluation, sweeps, false, {});
    append_figures(figures_csv, *evaluation, sweeps, with_uncertainty);
    const Id configuration = evaluation->record().configuration_id;
    const std::string number = configuration == 0 ? "" : std::to_string(configurations.at(configuration));
    if (i < audits.size()) append_audit(audit_csv, audits[i], number), append_verdict(verdict_csv, audits[i], number);
    if (const TestLight* light = with_light == WithLight::Yes ? evaluation->light() : nullptr;
        light && light->found().fits)
      append_light(found_csv, *light, number);
  }
  if (!found_csv.empty())
    tables["whole_light.csv"] = "configuration_id,quantity,height_m,value,expanded_k2,unit\r\n" + found_csv;
  if (!audit_csv.empty()) tables["audit.csv"] = audit_head + audit_csv;
  if (!verdict_csv.empty()) tables["verdict.csv"] = verdict_head + verdict_csv;
  return tables;
}

std::string spreadsheet_csv(const Evaluations& evaluations) {
  const bool configured = evaluations.size() > 1;
  std::string csv = station_head(true, configured);
  for (const auto& evaluation : evaluations)
    append_stations(csv, *evaluation, {}, true,
                    configured ? configuration_name(evaluation->record(), evaluation->record().configuration_id) : "");
  return csv;
}

}  // namespace sunbreak::exchange
