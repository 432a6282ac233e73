#include "report/power_section.h"

#include <fmt/format.h>

#include <cmath>

#include "core/power/running_cost.h"
#include "core/quantity/display.h"
#include "evaluation/heat_by_state.h"
#include "evaluation/read_sweeps.h"
#include "evaluation/stabilization.h"
#include "evaluation/stair_records.h"
#include "record/configurations.h"
#include "report/picture_section.h"

namespace sunbreak::report {
namespace {

using kainjow::mustache::data;
using List = kainjow::mustache::list;

std::string read_figure(const std::optional<double>& value, int decimals) {
  return value ? fmt::format("{:.{}f}", *value, decimals) : "–";
}

List stair_rows(const DimmingCurve& stair) {
  List rows;
  for (const DimmingPoint& r : stair.rows) {
    data row;
    row.set("dial", short_number(r.dial_pct, 1));
    row.set("share_of_light", read_figure(r.light_factor, 3));
    row.set("spread", r.spread ? fmt::format("{:.1f} %", 100 * *r.spread) : "–");
    row.set("watts", read_figure(r.power_w, 1));
    row.set("factor", read_figure(r.power_factor, 2));
    row.set("efficacy", read_figure(r.relative_efficacy, 3));
    row.set("off_linear", r.off_linear ? fmt::format("{:+.1f} %", 100 * *r.off_linear) : "–");
    rows.push_back(row);
  }
  return rows;
}

List stair_notes(const DimmingCurve& stair) {
  List notes;
  if (stair.lowest_pct) notes.push_back(data(fmt::format("Lowest setting with light: {:g} %.", *stair.lowest_pct)));
  if (stair.standby_w) notes.push_back(data(fmt::format("Standby: {:.1f} W.", *stair.standby_w)));
  for (const auto& note : {stair.full_is_guessed, stair.pattern_changes})
    if (note) notes.push_back(data(*note));
  return notes;
}

std::string state_text(const evaluation::HeatRow& row, UnitSystem units) {
  std::string words = row.height_m ? length_text(*row.height_m, units) : "";
  if (row.percent) words += (words.empty() ? "" : " · ") + short_number(*row.percent, 1) + " %";
  return words.empty() ? "–" : words;
}

List temperature_rows(const record::TestRecord& b, const ReportOptions& options) {
  const UnitSystem units = options.units;
  const auto degrees = [&](const std::optional<double>& c) {
    return c ? fmt::format("{:.1f}", shown_temperature(*c, units)) : std::string("–");
  };
  const auto heat = evaluation::heat_rows(b, units);
  List rows;
  for (std::size_t i = 0; i < heat.size(); ++i) {
    const record::Temperature& t = b.temperatures[i];
    const evaluation::HeatRow& h = heat[i];
    data row;
    row.set("place", h.place);
    row.set("state", state_text(h, units));
    row.set("method", t.method);
    row.set("read", degrees(t.read_c));
    row.set("surface", degrees(h.surface_c ? std::optional(h.surface_c.value()) : std::nullopt));
    row.set("spread", h.hottest_c || h.coldest_c ? degrees(h.coldest_c) + " to " + degrees(h.hottest_c) : "–");
    row.set("rise", h.rise_k ? fmt::format("{:.1f}", shown_rise(*h.rise_k, units)) : "–");
    row.set("after", h.minutes_on ? fmt::format("{:.0f} min", *h.minutes_on) : "–");
    std::string words = t.notes;
    for (const Finding& c : temperature_checks(evaluation::shot_of(b, t, units)))
      words += (words.empty() ? "" : "; ") + c.saw + ": " + c.effect;
    row.set("words", words);
    add_pictures(row, pictures_of(b, [&](const record::Picture& p) { return p.temperature_id == t.id; }), options);
    rows.push_back(row);
  }
  return rows;
}

/// Where a place was made to read what a crop asks for, and the watts that took.
List turned_rows(const record::TestRecord& b, UnitSystem units) {
  List rows;
  for (const record::TargetSetting& t : b.target_settings) {
    data row;
    row.set("crop", t.target_name);
    row.set("place", t.place);
    row.set("wanted", ppfd_text(t.wanted_ppfd));
    row.set("read", ppfd_text(corrected_ppfd(t.raw, record::correction_of(b))));
    row.set("height", t.height_m ? length_text(*t.height_m, units) : "–");
    row.set("dial", t.percent ? short_number(*t.percent, 1) + " %" : "–");
    row.set("watts", read_figure(t.power_w, 1));
    rows.push_back(row);
  }
  return rows;
}

/// Every typed reading of the wall plug, those of sweeps by their sweep.
List wall_rows(const record::TestRecord& b, UnitSystem units) {
  List rows;
  for (const record::WallReading& w : b.wall_readings) {
    const record::Sweep* sweep = w.sweep_id ? b.sweep(*w.sweep_id) : nullptr;
    data row;
    row.set("of", sweep ? evaluation::sweep_name(b, *sweep, units) : std::string("warm-up"));
    row.set("at", w.taken_at);
    row.set("watts", read_figure(w.power_w, 1));
    row.set("volts", read_figure(w.voltage_v, 1));
    row.set("amperes", read_figure(w.current_a, 3));
    row.set("apparent", read_figure(w.apparent_va, 1));
    row.set("factor", read_figure(w.power_factor, 3));
    row.set("frequency", read_figure(w.frequency_hz, 1));
    rows.push_back(row);
  }
  return rows;
}

List cost_notes(const record::TestRecord& b, double watts) {
  List notes;
  const RunningCost c = running_cost(watts, b.test.photoperiod_h, b.test.tariff_per_kwh.value_or(0));
  std::string words =
      fmt::format("At {:.1f} W and {} h of light a day: {:.1f} kWh a day, {:.0f} a month, {:.0f} a year", watts,
                  short_number(b.test.photoperiod_h, 1), c.kwh_day, c.kwh_month, c.kwh_year);
  if (b.test.tariff_per_kwh)
    words += fmt::format("; at {} {} a kWh {:.2f}, {:.2f}, {:.2f} {}", short_number(*b.test.tariff_per_kwh, 4),
                         b.test.tariff_currency, c.money_day, c.money_month, c.money_year, b.test.tariff_currency);
  notes.push_back(data(words + fmt::format(". Heat: {:.0f} BTU/h.", heat_btu_h(watts))));
  return notes;
}

}  // namespace

void add_power_section(data& page, const record::TestRecord& b, const evaluation::WallLog& log,
                       const ReportOptions& options) {
  const UnitSystem units = options.units;
  List warm_up;
  const evaluation::FallFromSwitchOn fall = evaluation::fall_from_switch_on(b.lamp_events, log);
  for (const auto& [share, of] : {std::pair{fall.light, "light"}, std::pair{fall.watts, "watts"}})
    if (share)
      warm_up.push_back(data(fmt::format("From switch-on to settled, {} {} by {:.1f} %.", of,
                                         *share >= 0 ? "fell" : "rose", 100 * std::abs(*share))));
  if (warm_up.empty() && !log.samples.empty())
    warm_up.push_back(data("No logged stretch from switch-on had settled: its fall is not stated."));
  const auto stair = evaluation::stair_of(b);
  std::optional<double> watts;
  for (const record::Sweep& sweep : b.sweeps)
    if (sweep.power_w && *sweep.power_w > watts.value_or(0)) watts = sweep.power_w;
  const List cost = watts ? cost_notes(b, *watts) : List();
  const List turned = turned_rows(b, units), wall = wall_rows(b, units);
  page.set("has_power", !warm_up.empty() || stair.ok() || !b.temperatures.empty() || !cost.empty() || !turned.empty() ||
                            !wall.empty());
  page.set("has_turned", !turned.empty());
  page.set("turned", data(turned));
  page.set("has_wall", !wall.empty());
  page.set("wall", data(wall));
  page.set("warm_up", data(warm_up));
  page.set("has_stair", stair.ok());
  page.set("stair", data(stair ? stair_rows(stair.value()) : List()));
  page.set("stair_notes", data(stair ? stair_notes(stair.value()) : List()));
  page.set("has_temperatures", !b.temperatures.empty());
  page.set("temperatures", data(temperature_rows(b, options)));
  List verdicts;
  for (const std::string& words : evaluation::heat_verdicts(b, units)) verdicts.push_back(data(words));
  page.set("heat_verdicts", data(verdicts));
  page.set("temperature_unit", std::string(temperature_unit(units)));
  page.set("rise_unit", std::string(rise_unit(units)));
  page.set("cost", data(cost));
}

}  // namespace sunbreak::report
