#include "evaluation/stabilization.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sunbreak::evaluation {
namespace {

constexpr int enough_to_judge = 3;
/// A log of light that ends so long before that of watts rests.
constexpr double out_of_date_s = 180;

/// The values of a log between two moments, ends in.
std::span<const TimedValue> stretch(const std::vector<TimedValue>& log, double from_s, double until_s) {
  const auto before = [](const TimedValue& v, double t) { return v.time_s < t; };
  const auto after = [](double t, const TimedValue& v) { return t < v.time_s; };
  const auto first = std::lower_bound(log.begin(), log.end(), from_s, before);
  return {first, std::upper_bound(first, log.end(), until_s, after)};
}

std::string ago(double seconds) {
  return seconds < 5400 ? fmt::format("{:.0f} min", std::round(seconds / 60)) : fmt::format("{:.1f} h", seconds / 3600);
}

}  // namespace

LampState lamp_at(LampEvents events, double time_s) {
  LampState lamp;
  for (const LampEvent& e : events) {
    const double at = seconds_of(e.at);
    if (!(at <= time_s)) continue;
    if (e.percent) lamp.percent = e.percent;
    if (e.kind == "off") {
      lamp = {{}, {}, true, lamp.percent};
      continue;
    }
    if (e.kind == "on") lamp.on_since_s = at, lamp.off = false;
    lamp.waiting_from_s = at;
  }
  return lamp;
}

Stabilization stabilization_at(LampEvents events, const WallLog& log, double time_s) {
  Stabilization s;
  s.lamp = lamp_at(events, time_s);
  const double from_s = s.lamp.waiting_from_s.value_or(-INFINITY);
  const auto light = stretch(log.light, from_s, time_s), watts = stretch(log.watts, from_s, time_s);
  if (s.lamp.off) {
    double off_s = -INFINITY;
    for (const LampEvent& e : events)
      if (const double at = seconds_of(e.at); e.kind == "off" && at <= time_s) off_s = std::max(off_s, at);
    const LampState off = s.lamp;
    if (s = stabilization_at(events, log, off_s - 0.001); s.lamp.off) s = {};
    s.lamp = off;
    s.words = s.words.empty() ? "The lamp is off." : "The lamp is off. Until then: " + s.words;
    s.state = StabilizationState::TooShort;
    return s;
  }
  if (light.empty() && watts.empty()) {
    s.words = "Nothing was logged yet since the lamp's last change.";
    return s;
  }
  s.from_s = std::min(light.empty() ? INFINITY : light.front().time_s, watts.empty() ? INFINITY : watts.front().time_s);
  s.until_s = std::max(light.empty() ? 0 : light.back().time_s, watts.empty() ? 0 : watts.back().time_s);
  s.light = stabilized(light);
  s.watts = stabilized(watts);
  const bool by_light = std::ssize(light) >= enough_to_judge, by_watts = std::ssize(watts) >= enough_to_judge;
  if (by_light != by_watts) {
    const StabilizationVerdict& v = by_light ? s.light : s.watts;
    s.state = v.state;
    s.words = fmt::format("{} By {} alone: {} was not logged.", v.words, by_light ? "light" : "watts",
                          by_light ? "power" : "light");
    return s;
  }
  const StabilizationVerdict both = later_of(s.light, s.watts);
  s.state = both.state;
  s.words = both.words;
  if (by_light && watts.back().time_s - light.back().time_s > out_of_date_s)
    s.words += fmt::format(
        " Light was last logged {} before that: since then the sensor was elsewhere, and watts alone "
        "were.",
        ago(watts.back().time_s - light.back().time_s));
  return s;
}

double stabilized_since_s(LampEvents events, const WallLog& log, const Stabilization& now) {
  double stabilized = now.until_s, not_yet = now.from_s;
  while (stabilized - not_yet > 60) {
    const double middle = (stabilized + not_yet) / 2;
    (stabilization_at(events, log, middle).state == StabilizationState::Stabilized ? stabilized : not_yet) = middle;
  }
  return stabilized;
}

FallFromSwitchOn fall_from_switch_on(LampEvents events, const WallLog& log) {
  double longest_s = 0, until_s = 0;
  for (std::size_t i = 0; i < events.size(); ++i) {
    if (events[i].kind != "on") continue;
    const double from_s = seconds_of(events[i].at),
                 next_s = i + 1 < events.size() ? seconds_of(events[i + 1].at) - 0.001 : INFINITY;
    const auto light = stretch(log.light, from_s, next_s);
    if (light.empty() || light.back().time_s - from_s <= longest_s) continue;
    longest_s = light.back().time_s - from_s;
    until_s = light.back().time_s;
  }
  if (longest_s == 0) return {};
  const Stabilization s = stabilization_at(events, log, until_s);
  if (s.state != StabilizationState::Stabilized) return {};
  return {s.light.fall_since_on, s.watts.fall_since_on};
}

WalkedState walked_state(LampEvents events, const WallLog& log, const SweepView& view, double dial_pct) {
  WalkedState w;
  double began = INFINITY, ended = -INFINITY;
  for (const StationState& s : view.states)
    if (s.kind == StationState::Read && s.at_the_bench && std::isfinite(s.taken_s))
      began = std::min(began, s.taken_s), ended = std::max(ended, s.taken_s);
  if (!(began <= ended)) {
    w.words = "Its readings have no times: whether it was walked settled is not known.";
    return w;
  }
  w.began_s = began, w.ended_s = ended;
  if (log.light.empty() && log.watts.empty()) {
    w.words = "Nothing was logged: whether it was walked settled is not known.";
    return w;
  }
  const Stabilization s = stabilization_at(events, log, began);
  if (s.lamp.percent && std::abs(*s.lamp.percent - dial_pct) > 0.05) {
    w.words = fmt::format(
        "The log is of {:g} % of the dial, the sweep of {:g} %: whether it was walked settled is not "
        "known.",
        *s.lamp.percent, dial_pct);
    return w;
  }
  if (s.state == StabilizationState::Stabilized) {
    w.kind = WalkedState::Stabilized;
    w.words = "Walked settled. " + s.words;
    return w;
  }
  if (s.from_s == s.until_s) {
    w.words = "Nothing was logged before it since the lamp's last change: whether it was walked settled is not known.";
    return w;
  }
  if (began - s.until_s > stabilization_window_s) {
    w.words = fmt::format("The log ends {} before it, not settled yet: whether it was walked settled is not known.",
                          ago(began - s.until_s));
    return w;
  }
  w.kind = WalkedState::NotStabilized;
  w.words = "Walked before light and watts had settled. " + s.words;
  if (s.lamp.on_since_s) w.words += fmt::format(" It began {} after switch-on.", ago(began - *s.lamp.on_since_s));
  return w;
}

}  // namespace sunbreak::evaluation
