#include <fmt/format.h>

#include <cmath>
#include <memory>

#include "cli/figures_command.h"
#include "cli/input_output.h"
#include "cli/options.h"
#include "cli/say.h"
#include "core/power/dimming_curve.h"
#include "core/power/stabilization.h"
#include "exchange/tables/log_table.h"
#include "exchange/tables/stair_table.h"
#include "record/json.h"

namespace sunbreak::cli {
namespace {

using record::Json;

Json to_json(const StabilizationVerdict& v) {
  Json j{{"state", v.state == StabilizationState::Stabilized ? "settled"
                   : v.state == StabilizationState::Moving   ? "moving"
                   : v.state == StabilizationState::Dark     ? "no light"
                                                             : "too short"},
         {"change_in_30_min", v.change_in_window},
         {"still_to_come", v.fit ? Json(v.fit->remaining_share) : Json()},
         {"still_to_come_sd", v.fit ? Json(v.fit->remaining_sd) : Json()},
         {"time_constant_s", v.fit ? Json(v.fit->time_constant_s) : Json()},
         {"settles_in_s", v.stabilizes_in_s},
         {"fall_since_on", v.fall_since_on},
         {"words", v.words}};
  return j;
}

int settle_check(const std::string& file, bool json) {
  const auto log = draft_of(file, exchange::read_log_table);
  if (!log) return refuse(log.problem());
  std::vector<TimedValue> light, watts;
  for (const record::LogSample& s : log.value().samples) {
    if (std::isfinite(s.light_raw)) light.push_back({s.time_s, s.light_raw});
    if (std::isfinite(s.power_w)) watts.push_back({s.time_s, s.power_w});
  }
  constexpr std::size_t fewest = 3;
  if (light.size() < fewest && watts.size() < fewest)
    return refuse({"it has fewer than three readings of light or watts with a time", "the rule needs three at least",
                   "give one line a reading: time_s, ppfd, watts"},
                  file);
  const auto judged = [](const std::vector<TimedValue>& values) {
    return values.size() < fewest ? std::nullopt : std::optional(stabilized(values));
  };
  const auto of_light = judged(light), of_watts = judged(watts);
  const StabilizationVerdict both = of_light && of_watts ? later_of(*of_light, *of_watts)
                                    : of_light           ? *of_light
                                                         : *of_watts;
  if (json) {
    Json j{{"verdict", both.words}};
    j["light"] = of_light ? to_json(*of_light) : Json();
    j["watts"] = of_watts ? to_json(*of_watts) : Json();
    say_json(j);
  } else {
    say("{}\n", both.words);
  }
  return 0;
}

std::string column(const std::optional<double>& value, const char* format) {
  return value ? fmt::format(fmt::runtime(format), *value) : "–";
}

int dimmer(const std::string& file, bool json) {
  const auto draft = draft_of(file, exchange::read_stair_table);
  if (!draft) return refuse(draft.problem());
  const auto found = dimming_curve(draft.value().steps);
  if (!found) return refuse(found.problem(), file);
  const DimmingCurve& stair = found.value();
  if (json) {
    Json j{{"full_dial_pct", stair.full_dial_pct},
           {"standby_w", stair.standby_w},
           {"lowest_pct", stair.lowest_pct},
           {"drift", stair.drift},
           {"notes", Json::array()},
           {"stops", Json::array()}};
    for (const auto& note : {stair.full_is_guessed, stair.pattern_changes})
      if (note) j["notes"].push_back(*note);
    for (const DimmingPoint& r : stair.rows)
      j["stops"].push_back({{"dial_pct", r.dial_pct},
                            {"light_factor", r.light_factor},
                            {"spread", r.spread},
                            {"power_w", r.power_w},
                            {"power_factor", r.power_factor},
                            {"power_share", r.power_share},
                            {"relative_efficacy", r.relative_efficacy},
                            {"off_linear", r.off_linear},
                            {"stations", r.stations}});
    say_json(j);
    return 0;
  }
  say("{:>8}{:>14}{:>10}{:>10}{:>8}{:>20}{:>12}\n", "dial, %", "light factor", "spread", "W", "PF", "relative efficacy",
      "off linear");
  for (const DimmingPoint& r : stair.rows) {
    const auto percent = [](std::optional<double> share) { return share ? std::optional(100 * *share) : share; };
    say("{:>8g}{:>14}{:>10}{:>10}{:>8}{:>20}{:>12}\n", r.dial_pct, column(r.light_factor, "{:.3f}"),
        column(percent(r.spread), "{:.1f} %"), column(r.power_w, "{:.1f}"), column(r.power_factor, "{:.2f}"),
        column(r.relative_efficacy, "{:.3f}"), column(percent(r.off_linear), "{:+.1f} %"));
  }
  if (stair.standby_w) say("Standby: {:.2f} W.\n", *stair.standby_w);
  if (stair.lowest_pct) say("Lowest stop with light: {:g} %.\n", *stair.lowest_pct);
  for (const auto& note : {stair.full_is_guessed, stair.pattern_changes})
    if (note) say("{}\n", *note);
  return 0;
}

}  // namespace

void add_power_commands(CLI::App& app, int& status) {
  const auto add = [&](const char* name, const char* does, const char* takes, const char* what, auto run) {
    auto file = std::make_shared<std::string>();
    auto json = std::make_shared<bool>(false);
    CLI::App* command = app.add_subcommand(name, does);
    add_text(*command, takes, *file, what)->required();
    command->add_flag("--json", *json, "as JSON");
    command->callback([=, &status] { status = run(*file, *json); });
  };
  add("settle-check", "Tell whether light and watts of a warm-up log have settled", "LOG",
      "a table with a time and any of ppfd, watts (docs/formats.md)", settle_check);
  add("dimmer", "Work out a dimmer's stair: light factor, watts, efficacy against the dial", "STAIR",
      "a table with the columns dial_pct, watts, power_factor, ppfd… (docs/formats.md)", dimmer);
}

}  // namespace sunbreak::cli
