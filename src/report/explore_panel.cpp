#include "report/explore_panel.h"

#include <algorithm>
#include <cmath>

#include "core/figures/nominal.h"
#include "core/power/running_cost.h"
#include "drawing/light_scale.h"
#include "drawing/png.h"
#include "embedded/sunbreak_report.h"
#include "evaluation/crop_targets.h"
#include "evaluation/recommended_sweep.h"
#include "evaluation/told_figures.h"
#include "exchange/files/digest.h"
#include "record/configurations.h"
#include "record/json.h"
#include "report/sweep_section.h"

namespace sunbreak::report {
namespace {

using record::Json;

constexpr int color_stops = 256;

Json numbers(std::span<const double> values) {
  Json list = Json::array();
  for (const double v : values) list.push_back(v);
  return list;
}

Json light_json(const AreaLight& light) {
  const auto number = [](double value) { return std::isnan(value) ? Json() : Json(value); };
  return {{"edge", number(light.edge)},
          {"center", number(light.center)},
          {"corners", number(light.corners)},
          {"lowest", number(light.lowest)},
          {"highest", number(light.highest)}};
}

Json rule_json(const ServingRule& rule) {
  const std::string id = serving_rule_id(rule);
  return {{"kind", id.substr(0, id.find(':'))},
          {"share", rule.share},
          {"ppfd", rule.ppfd},
          {"within", center_within},
          {"words", serving_rule_words(rule)}};
}

/// What does not change with target, hours and tariff, as the page shows it.
Json told_json(const evaluation::Evaluation& evaluation, record::Id sweep, UnitSystem units) {
  const std::string_view ids[] = {"mean_ppfd", evaluation.record().test.evenness_lead, "ppf_umol_s",
                                  "canopy_efficacy_umol_j", "power_w"};
  Json told = Json::array();
  for (const evaluation::ToldFigure& f : evaluation::told_figures(evaluation, sweep, ids, units))
    told.push_back(
        {{"id", f.id}, {"label", f.label}, {"value", f.value_with_unit() + (f.sure.empty() ? "" : " " + f.sure)}});
  return told;
}

Json sweep_json(const evaluation::Evaluation& evaluation, const record::Sweep& sweep, const evaluation::SweepView& view,
                UnitSystem units) {
  const Layout& layout = view.layout;
  const Field field(layout, view.ppfd);
  Json places = Json::array();
  double spacing = INFINITY;
  for (const Station& s : layout.stations) places.push_back(Json::array({s.x_m, s.y_m}));
  for (const auto* lines : {&layout.xs_m, &layout.ys_m})
    for (std::size_t i = 1; i < lines->size(); ++i) spacing = std::min(spacing, (*lines)[i] - (*lines)[i - 1]);
  const bool lattice = layout.is_lattice() && field.exists();
  Json s{{"height", sweep.rung_id},
         {"setting", sweep.stop_id},
         {"power_w", sweep.power_w},
         {"mean", evaluation.figures(sweep.id)->mean_ppfd},
         {"light", lattice ? light_json(AreaPlan(layout, layout.measured).light(view.ppfd)) : Json()},
         {"told", told_json(evaluation, sweep.id, units)},
         {"footprint", Json::array({layout.footprint.width_m, layout.footprint.depth_m})},
         {"area",
          {{"left", layout.measured.left_m},
           {"front", layout.measured.front_m},
           {"width", layout.measured.width_m},
           {"depth", layout.measured.depth_m}}},
         {"xs", lattice ? numbers(layout.xs_m) : Json::array()},
         {"ys", lattice ? numbers(layout.ys_m) : Json::array()},
         {"places", std::move(places)},
         {"values", numbers(view.ppfd)},
         {"spacing", std::isfinite(spacing) ? spacing : layout.footprint.width_m / 4}};
  return s;
}

Json configuration_json(const evaluation::Evaluation& evaluation, const ReportOptions& options) {
  const record::TestRecord& b = evaluation.record();
  Json one{{"name", record::configuration_name(b, b.configuration_id)},
           {"heights", Json::array()},
           {"settings", Json::array()},
           {"sweeps", Json::array()}};
  const PrintedSweeps printed = printed_sweeps(evaluation, options);
  const auto walked = [&](auto wanted) { return std::ranges::any_of(printed, wanted); };
  for (const record::Rung& rung : b.rungs)
    if (walked([&](const auto& of) { return of.first->rung_id == rung.id; }))
      one["heights"].push_back({{"id", rung.id}, {"words", length_text(rung.height_m, options.units)}});
  for (const record::Stop& stop : b.stops)
    if (walked([&](const auto& of) { return of.first->stop_id == stop.id; }))
      one["settings"].push_back({{"id", stop.id}, {"words", short_number(stop.percent, 1) + " %"}});
  for (const auto& [sweep, view] : printed)
    one["sweeps"].push_back(sweep_json(evaluation, *sweep, *view, options.units));
  return one;
}

/// The test's own target, then those of the list that it goes by.
Json targets_json(const record::TestRecord& b, const ReportOptions& options) {
  const bool daily = b.test.target_by_daily_light;
  const double hours = b.test.photoperiod_h;
  const auto end = [&](double ppfd) { return daily ? ppfd * 3600 * hours / 1e6 : ppfd; };
  Json targets = Json::array();
  targets.push_back({{"name", b.test.target_name},
                     {"low", end(b.test.target_low_ppfd)},
                     {"high", end(b.test.target_high_ppfd)},
                     {"by_daily_light", daily},
                     {"hours", hours}});
  const auto all = options.targets.empty() ? evaluation::shipped_targets() : options.targets;
  for (const record::CropTarget& t : evaluation::targets_of_set(all, evaluation::target_list_of(b, all)))
    if (t.name != b.test.target_name)
      targets.push_back({{"name", t.name},
                         {"low", t.low},
                         {"high", t.high},
                         {"by_daily_light", t.by_daily_light},
                         {"hours", t.photoperiod_h}});
  return targets;
}

/// JSON that may stand between the tags of a script element.
std::string in_script(const Json& json) {
  std::string out;
  for (const char c : record::json_text(json)) c == '<' ? out += "\\u003c" : out += c;
  return out;
}

int place_of(const Json& list, record::Id id) {
  for (std::size_t i = 0; i < list.size(); ++i)
    if (list[i]["id"].whole() == id) return static_cast<int>(i);
  return 0;
}

}  // namespace

void add_explore_panel(kainjow::mustache::data& page, const evaluation::Evaluations& evaluations,
                       const drawing::ScaleRange& range, const ReportOptions& options) {
  Json configurations = Json::array();
  for (const auto& evaluation : evaluations) {
    Json one = configuration_json(*evaluation, options);
    if (!one["sweeps"].empty()) configurations.push_back(std::move(one));
  }
  if (configurations.empty()) return;
  const record::TestRecord& b = evaluations.front()->record();
  const evaluation::RecommendedSweep first =
      evaluation::recommended_sweep(*evaluations.front(), printed_sweeps(*evaluations.front(), options), options.units);
  Json colors = Json::array();
  for (int i = 0; i < color_stops; ++i) {
    const drawing::Rgb c = drawing::light_color(i / (color_stops - 1.0));
    colors.push_back(Json::array({c.red, c.green, c.blue}));
  }
  const LengthUnit unit = surface_unit(options.units);
  const Json& shown = configurations[0];
  Json shown_first{{"height", first.sweep ? place_of(shown["heights"], first.sweep->rung_id) : 0},
                   {"setting", first.sweep ? place_of(shown["settings"], first.sweep->stop_id) : 0}};
  const Json all{{"configurations", std::move(configurations)},
                 {"targets", targets_json(b, options)},
                 {"first", std::move(shown_first)},
                 {"hours", b.test.photoperiod_h},
                 {"tariff", b.test.tariff_per_kwh},
                 {"currency", b.test.tariff_currency.empty() ? std::string("money") : b.test.tariff_currency},
                 {"range", Json::array({range.low, range.high})},
                 {"colors", std::move(colors)},
                 {"paper", drawing::paper_palette().panel.hex()},
                 {"step_m", raster_step_m},
                 {"most_samples", most_raster_samples},
                 {"rule", rule_json(evaluation::serving_rule_of(b))},
                 {"days_a_year", days_a_year},
                 {"unit", symbol(unit)},
                 {"unit_m", meters_per(unit)}};
  const std::string script(embedded::explore_js);
  page.set("explore", true);
  page.set("explore_data", in_script(all));
  page.set("explore_script", script);
  page.set("script_source",
           "; script-src 'sha256-" + drawing::base64(exchange::sha256_bytes(script)) + "'; base-uri 'none'");
}

}  // namespace sunbreak::report
