#include "evaluation/heat_by_state.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "evaluation/light_words.h"
#include "evaluation/stabilization.h"
#include "evaluation/stair_records.h"

namespace sunbreak::evaluation {
namespace {

bool is_canopy(const Temperature& t) {
  return t.place == "leaf" || t.place == "swatch" || t.place == "floor" || !t.material.empty();
}

/// Neither the fixture nor what it lights.
bool is_surroundings(const Temperature& t) { return t.place == "air" || t.place == "tent wall"; }

std::optional<double> corrected(const TestRecord& test, Temperature t, const std::optional<double>& read_c,
                                UnitSystem units) {
  if (!read_c) return {};
  t.read_c = *read_c;
  const auto surface = surface_temperature_c(shot_of(test, t, units));
  return surface ? std::optional(surface.value()) : std::nullopt;
}

std::string limit_text(double value, const char* unit) { return fmt::format("{:.0f} {}", value, unit); }

/// A state as it is told: "110 % at 45 cm".
std::string state_words(const HeatRow& row, UnitSystem units) {
  std::string words = row.percent ? fmt::format("{:.4g} %", *row.percent) : "a setting not noted";
  if (row.height_m) words += " at " + length_text(*row.height_m, units);
  return words;
}

/// The hottest of a kind for each setting and height.
using ByState = std::map<std::pair<double, double>, const HeatRow*>;

ByState hottest_by_state(const std::vector<HeatRow>& rows, bool canopy) {
  ByState states;
  for (const HeatRow& row : rows) {
    if (row.canopy != canopy || !row.over_limit) continue;
    const HeatRow*& most = states[{row.percent.value_or(-1), row.height_m.value_or(-1)}];
    if (!most || *row.over_limit > *most->over_limit) most = &row;
  }
  return states;
}

void judge(std::vector<std::string>& words, const std::vector<HeatRow>& rows, bool canopy, const std::string& limit,
           UnitSystem units) {
  const auto states = hottest_by_state(rows, canopy);
  const char* what = canopy ? "canopy" : "surfaces";
  double highest_within = -1, lowest_over = INFINITY;
  for (const auto& [state, row] : states) {
    const double by = std::abs(*row->over_limit);
    const std::string amount = fmt::format("{:.1f} {}", shown_rise(by, units), rise_unit(units));
    const bool over = *row->over_limit > 0;
    words.push_back(fmt::format("{}: {} is {} {} your limit of {}.", state_words(*row, units), row->place, amount,
                                over ? "over" : "under", limit));
    if (state.first >= 0) {
      if (over)
        lowest_over = std::min(lowest_over, state.first);
      else
        highest_within = std::max(highest_within, state.first);
    }
  }
  if (lowest_over > 100 && std::isfinite(lowest_over))
    words.push_back(
        fmt::format("Boost to {:.4g} % is over your limit for {}: it is not worth its heat.", lowest_over, what));
  else if (std::isfinite(lowest_over) && highest_within >= 0 && highest_within < lowest_over)
    words.push_back(fmt::format("Of what was taken, {} stay within your limit up to {:.4g} %.", what, highest_within));
  else if (highest_within > 100 && !std::isfinite(lowest_over))
    words.push_back(fmt::format("Boost to {:.4g} % keeps {} within your limit.", highest_within, what));
}

}  // namespace

std::vector<HeatRow> heat_rows(const TestRecord& test, UnitSystem units) {
  std::vector<HeatRow> rows;
  for (const Temperature& t : test.temperatures) {
    HeatRow row;
    row.id = t.id;
    row.place = t.material.empty() ? t.place : fmt::format("{} ({})", t.place, t.material);
    const LampState lamp = lamp_at(test.lamp_events, seconds_of(t.taken_at));
    row.height_m = t.height_m;
    row.percent = t.percent ? t.percent : lamp.off ? std::nullopt : lamp.percent;
    if (lamp.on_since_s) row.minutes_on = (seconds_of(t.taken_at) - *lamp.on_since_s) / 60;
    const TemperatureShot shot = shot_of(test, t, units);
    row.surface_c = surface_temperature_c(shot);
    row.hottest_c = corrected(test, t, t.hottest_c, units);
    row.coldest_c = corrected(test, t, t.coldest_c, units);
    row.canopy = is_canopy(t);
    if (row.surface_c && shot.air_c && t.place != "air") row.rise_k = row.surface_c.value() - *shot.air_c;
    if (row.surface_c && !is_surroundings(t)) {
      const double most = std::max(row.surface_c.value(), row.hottest_c.value_or(-INFINITY));
      if (!row.canopy && test.test.surface_limit_c) row.over_limit = most - *test.test.surface_limit_c;
      if (row.canopy && test.test.canopy_rise_limit_c && shot.air_c)
        row.over_limit = most - *shot.air_c - *test.test.canopy_rise_limit_c;
    }
    rows.push_back(std::move(row));
  }
  return rows;
}

std::vector<std::string> heat_verdicts(const TestRecord& test, UnitSystem units) {
  const auto rows = heat_rows(test, units);
  std::vector<std::string> words;
  const std::string degrees(temperature_unit(units)), rise(rise_unit(units));
  if (const auto limit = test.test.surface_limit_c)
    judge(words, rows, false, limit_text(shown_temperature(*limit, units), degrees.c_str()), units);
  if (const auto limit = test.test.canopy_rise_limit_c)
    judge(words, rows, true, limit_text(shown_rise(*limit, units), rise.c_str()) + " over air", units);
  return words;
}

std::vector<Swatch> swatches(const std::vector<Temperature>& used) {
  // Emissivities of matt surfaces as tables of thermography commonly give them.
  std::vector<Swatch> all{{"white", 0.90}, {"black", 0.95}, {"green", 0.93},
                          {"wood", 0.90},  {"film", 0.85},  {"leaf", 0.96}};
  for (const Temperature& t : used)
    if (!t.material.empty() && std::ranges::find(all, t.material, &Swatch::material) == all.end())
      all.push_back({t.material, t.emissivity_true.value_or(0.95)});
  return all;
}

}  // namespace sunbreak::evaluation
