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

/// What the states of one setting come to: the heights that are within the limit and those that are over it.
struct OfSetting {
  std::vector<double> within_m, over_m;
};

constexpr const char *the_canopy = "the canopy", *surfaces = "surfaces";
const char* stays(std::string_view what) { return what == surfaces ? " stay" : " stays"; }

/// What boost and the heights are worth, where both sides of the limit were met.
void sum_up(std::vector<std::string>& words, const std::map<double, OfSetting>& settings, const char* what,
            UnitSystem units) {
  double highest_within = -1, lowest_over = INFINITY;
  for (const auto& [percent, s] : settings) {
    const bool boost = percent > 100;
    if (!s.over_m.empty()) lowest_over = std::min(lowest_over, percent);
    if (s.over_m.empty()) highest_within = std::max(highest_within, percent);
    if (boost && s.within_m.empty())
      words.push_back(
          fmt::format("Boost to {:.4g} % is over your limit for {}: it is not worth its heat.", percent, what));
    else if (boost && s.over_m.empty())
      words.push_back(fmt::format("Boost to {:.4g} % keeps {} within your limit.", percent, what));
    // Where hanging it higher is what brings it within the limit.
    if (s.over_m.empty() || s.within_m.empty()) continue;
    const double from_m = *std::ranges::min_element(s.within_m), to_m = *std::ranges::max_element(s.over_m);
    if (0 < to_m && to_m < from_m)  // a height that is not noted tells nothing
      words.push_back(fmt::format("At {:.4g} % {} within your limit from {} up; {} is too near.", percent,
                                  what + std::string(stays(what)), length_text(from_m, units),
                                  length_text(to_m, units)));
  }
  if (lowest_over <= 100 && highest_within >= 0 && highest_within < lowest_over)
    words.push_back(
        fmt::format("Of what was taken, {}{} within your limit up to {:.4g} %.", what, stays(what), highest_within));
}

void say_of_limit(std::vector<std::string>& words, const std::vector<HeatRow>& rows, bool canopy,
                  const std::string& limit, UnitSystem units) {
  std::map<double, OfSetting> settings;
  for (const auto& [state, row] : hottest_by_state(rows, canopy)) {
    const bool over = *row->over_limit > 0;
    words.push_back(fmt::format("{}: {} is {:.1f} {} {} your limit of {}.", state_words(*row, units), row->place,
                                shown_rise(std::abs(*row->over_limit), units), rise_unit(units),
                                over ? "over" : "under", limit));
    if (row->percent)
      (over ? settings[*row->percent].over_m : settings[*row->percent].within_m).push_back(row->height_m.value_or(0));
  }
  sum_up(words, settings, canopy ? the_canopy : surfaces, units);
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
    row.on_fixture = !row.canopy && !is_surroundings(t);
    if (row.surface_c && shot.air_c && t.place != "air") row.rise_k = row.surface_c.value() - *shot.air_c;
    if (row.surface_c && !is_surroundings(t)) {
      const double most = std::max(row.surface_c.value(), row.hottest_c.value_or(-INFINITY));
      if (row.on_fixture && test.test.surface_limit_c) row.over_limit = most - *test.test.surface_limit_c;
      if (row.canopy && test.test.canopy_rise_limit_c && shot.air_c)
        row.over_limit = most - *shot.air_c - *test.test.canopy_rise_limit_c;
    }
    rows.push_back(std::move(row));
  }
  return rows;
}

std::optional<HottestPlace> hottest_of_fixture(const std::vector<HeatRow>& rows,
                                               const std::function<bool(const HeatRow&)>& wanted) {
  std::optional<HottestPlace> hottest;
  for (const HeatRow& row : rows) {
    if (!row.surface_c || !row.on_fixture || (wanted && !wanted(row))) continue;
    const double here = std::max(row.surface_c.value(), row.hottest_c.value_or(-INFINITY));
    if (!hottest || here > hottest->celsius) hottest = {&row, here};
  }
  return hottest;
}

std::vector<std::string> heat_verdicts(const TestRecord& test, UnitSystem units) {
  const auto rows = heat_rows(test, units);
  std::vector<std::string> words;
  const std::string degrees(temperature_unit(units)), rise(rise_unit(units));
  if (const auto limit = test.test.surface_limit_c)
    say_of_limit(words, rows, false, limit_text(shown_temperature(*limit, units), degrees.c_str()), units);
  if (const auto limit = test.test.canopy_rise_limit_c)
    say_of_limit(words, rows, true, limit_text(shown_rise(*limit, units), rise.c_str()) + " over air", units);
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
