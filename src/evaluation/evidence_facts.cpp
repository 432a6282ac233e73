#include "evaluation/evidence_facts.h"

#include <algorithm>
#include <chrono>
#include <cstdio>

namespace sunbreak::evaluation {
namespace {

constexpr double days_a_month = 30.4375, same_state_slack_s = 600;

/// Days since 1970 of an ISO 8601 date at the beginning of a text.
std::optional<double> days_of(const std::string& date) {
  int year = 0;
  unsigned month = 0, day = 0;
  if (std::sscanf(date.c_str(), "%d-%u-%u", &year, &month, &day) != 3) return {};
  const std::chrono::year_month_day ymd{std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)};
  if (!ymd.ok()) return {};
  return static_cast<double>(std::chrono::sys_days(ymd).time_since_epoch().count());
}

bool power_in_the_same_state(const TestRecord& test_record, const Sweep& sweep, const WalkedState& walk,
                             std::span<const TimedValue> watts) {
  if (walk.began_s <= 0) return false;
  const double from = walk.began_s - same_state_slack_s, until = walk.ended_s + same_state_slack_s;
  const auto within = [&](double time_s) { return time_s >= from && time_s <= until; };
  const bool noted = std::any_of(
      test_record.wall_readings.begin(), test_record.wall_readings.end(),
      [&](const WallReading& w) { return w.sweep_id == sweep.id && w.power_w && within(seconds_of(w.taken_at)); });
  return noted || std::any_of(watts.begin(), watts.end(), [&](const TimedValue& v) { return within(v.time_s); });
}

}  // namespace

EvidenceFacts evidence_facts(const TestRecord& test_record, const Sweep& sweep, const SweepView& view,
                             const WalkedState& walk, std::span<const TimedValue> watts, int open_checks,
                             UnitSystem units) {
  const Test& test = test_record.test;
  const Bench& bench = test_record.bench;
  EvidenceFacts f;
  f.units = units;
  f.lattice = view.layout.is_lattice() && view.layout.kind != GridKind::Spots;
  f.stations = static_cast<int>(view.states.size());
  f.unread = f.stations - view.read();
  f.read_share = read_share(view.layout, view.ppfd);
  f.area_m2 = view.layout.measured.area_m2();
  f.by_lux = sweep.lux_k && !sweep.lux_fitted_here;
  f.altered = !test.altered.empty();
  f.stabilization = walk.kind == WalkedState::Stabilized      ? EvidenceFacts::Stabilized
                    : walk.kind == WalkedState::NotStabilized ? EvidenceFacts::NotStabilized
                                                              : EvidenceFacts::StabilizationNotKnown;
  f.stabilization_words = walk.words;
  if (f.stabilization_words.ends_with('.')) f.stabilization_words.pop_back();
  if (view.drift.exists()) f.drift = view.drift.largest_change();
  f.power_w = sweep.power_w;
  f.power_in_the_same_state = power_in_the_same_state(test_record, sweep, walk, watts);
  f.power_carried = !sweep.power_carried_from.empty();
  f.datum = test.datum;
  if (const Meter* sensor = test_record.meter(test.sensor_id)) {
    f.sensor_height_m = sensor->receiving_height_m;
    const auto calibrated = days_of(sensor->calibrated_on),
               tested = days_of(test.tested_on.empty() ? test.created_at : test.tested_on);
    if (calibrated && tested) f.months_since_calibration = (*tested - *calibrated) / days_a_month;
  }
  f.walls_stated =
      !bench.wall_left.empty() && !bench.wall_right.empty() && !bench.wall_front.empty() && !bench.wall_back.empty();
  f.door_stated = !test.door.empty() || bench.wall_front == "open";
  f.level_checked = test.checked_level == "yes";
  f.center_checked = test.checked_center == "yes";
  f.open_checks = open_checks;
  return f;
}

}  // namespace sunbreak::evaluation
