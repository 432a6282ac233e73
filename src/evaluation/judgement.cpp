#include "evaluation/judgement.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>

#include "core/sweep/difference.h"
#include "core/uncertainty/height_slope.h"
#include "core/uncertainty/observed_terms.h"
#include "evaluation/test_checks.h"

namespace sunbreak::evaluation {
namespace {

constexpr double days_a_month = 30.4375, same_state_slack_s = 600;

/// A stated size in place of the usual one.
void state(Term& term, const std::optional<double>& value, double unit, const std::string& words) {
  if (value && *value >= 0) term = {*value * unit, Origin::Stated, words};
}

void find_height_slope(BudgetQuestion& q, const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                       const SweepViews& views) {
  const Rung* here = bundle.rung(sweep.rung_id);
  if (!here) return;
  std::vector<RungLight> rungs;
  for (const Rung& rung : bundle.rungs) {
    const Sweep* other = bundle.sweep(rung.id, sweep.stop_id);
    const auto found = other ? views.find(other->id) : views.end();
    if (found != views.end() && found->second.read() > 0)
      rungs.push_back({rung.height_m, light_at(view.layout, found->second.layout, found->second.ppfd)});
  }
  q.slope_per_m = height_slope(rungs, here->height_m);
  if (!q.slope_per_m.empty()) {
    q.height_m.words += "; slope from the rungs";
    return;
  }
  // Between walls light falls more slowly than with the inverse of the height, in the open up to twice as fast.
  q.slope_per_m.assign(view.layout.stations.size(), -1 / here->height_m);
  q.height_m.words += "; slope assumed, since no other height was walked";
}

std::vector<Repeats> repeats_of(const Sweep& sweep, const SweepView& view) {
  const Correction correction = correction_of(sweep);
  std::map<int, RepeatedStation> stations;
  for (const SideReading& s : view.side_readings) {
    if (s.purpose != "repeat" || s.station < 0 || s.station >= std::ssize(view.ppfd)) continue;
    if (std::isnan(view.ppfd[s.station])) continue;
    auto& values = stations[s.station].ppfd;
    if (values.empty()) values.push_back(view.ppfd[s.station]);
    values.push_back(corrected_ppfd(s.raw, correction) * view.drift.factor(seconds_of(s.taken_at)));
  }
  std::vector<Repeats> repeats;
  for (auto& [station, values] : stations) repeats.push_back({station, std::move(values)});
  return repeats;
}

/// When in the walk each station was read, 0 at its beginning and 1 at its end; by the plan's order where times are not
/// known.
std::vector<double> walked(const TestRecord& bundle, const SweepView& view) {
  std::vector<double> share(view.states.size(), 0);
  double first = INFINITY, last = -INFINITY;
  for (const StationState& s : view.states)
    if (s.kind == StationState::Read && s.at_the_bench && std::isfinite(s.taken_s))
      first = std::min(first, s.taken_s), last = std::max(last, s.taken_s);
  if (last > first) {
    for (std::size_t i = 0; i < share.size(); ++i)
      share[i] = std::clamp((view.states[i].taken_s - first) / (last - first), 0.0, 1.0);
    return share;
  }
  const std::vector<int> order = walk_of(bundle.test, view.layout);
  for (std::size_t n = 0; n < order.size(); ++n)
    share[order[n]] = order.size() > 1 ? static_cast<double>(n) / static_cast<double>(order.size() - 1) : 0;
  return share;
}

/// Days since 1970 of an ISO 8601 date at the beginning of a text.
std::optional<double> days_of(const std::string& date) {
  int year = 0;
  unsigned month = 0, day = 0;
  if (std::sscanf(date.c_str(), "%d-%u-%u", &year, &month, &day) != 3) return {};
  const std::chrono::year_month_day ymd{std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)};
  if (!ymd.ok()) return {};
  return static_cast<double>(std::chrono::sys_days(ymd).time_since_epoch().count());
}

/// How many checks of a sweep, and `between` of it or of the test as a whole, are open.
int open_checks(const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                const std::vector<TestCheck>& between) {
  int open = 0;
  for (const Check& check : checks_of(bundle, sweep, view, {})) open += !dismissal_of(bundle, sweep.id, check, &view);
  for (const TestCheck& c : between)
    if (c.sweep_id == sweep.id || c.sweep_id == 0) open += !dismissal_of(bundle, c.sweep_id, c.check, &view);
  return open;
}

bool power_in_the_same_state(const TestRecord& bundle, const Sweep& sweep, const WalkedState& walk,
                             std::span<const TimedValue> watts) {
  if (walk.began_s <= 0) return false;
  const double from = walk.began_s - same_state_slack_s, until = walk.ended_s + same_state_slack_s;
  const auto within = [&](double time_s) { return time_s >= from && time_s <= until; };
  const bool noted = std::any_of(bundle.wall_readings.begin(), bundle.wall_readings.end(), [&](const WallReading& w) {
    return w.sweep_id == sweep.id && w.power_w && within(seconds_of(w.taken_at));
  });
  return noted || std::any_of(watts.begin(), watts.end(), [&](const TimedValue& v) { return within(v.time_s); });
}

}  // namespace

SweepViews views_of(const TestRecord& bundle) {
  SweepViews views;
  for (const Sweep& sweep : bundle.sweeps)
    if (auto view = view_sweep(bundle, sweep)) views.emplace(sweep.id, std::move(view.value()));
  return views;
}

BudgetQuestion budget_question(const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                               const SweepViews& views) {
  BudgetQuestion q;
  q.layout = &view.layout;
  q.ppfd = view.ppfd;
  q.context = figure_context(bundle, sweep, {});
  const Test& test = bundle.test;
  q.calibration.words = "usual for a quantum sensor; its own is not stated";
  q.spectral.words = q.cosine.words = "usual for a quantum sensor";
  q.height_m.words = q.position_m.words = q.edge_m.words = "usual for a tape and care";
  q.power.words = "usual for a plug-in meter; its own is not stated";
  if (const Meter* sensor = bundle.meter(test.sensor_id))
    state(q.calibration, sensor->uncertainty_pct, 0.01, "stated for " + sensor->name);
  if (const Meter* wall = bundle.meter(test.wall_meter_id))
    state(q.power, wall->uncertainty_pct, 0.01, "stated for " + wall->name);
  state(q.spectral, test.spectral_uncertainty_pct, 0.01, "stated");
  state(q.cosine, test.cosine_uncertainty_pct, 0.01, "stated, at the lowest angles");
  state(q.height_m, test.height_uncertainty_m, 1, "stated");
  state(q.position_m, test.position_uncertainty_m, 1, "stated");
  state(q.edge_m, test.edge_uncertainty_m, 1, "stated");
  q.repeatability = repeatability_term(view.layout, view.ppfd, repeats_of(sweep, view), q.position_m.value);
  q.drift = drift_term(view.drift, q.repeatability.value);
  find_height_slope(q, bundle, sweep, view, views);
  q.walked = walked(bundle, view);
  return q;
}

EvidenceFacts evidence_facts(const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                             const WalkedState& walk, std::span<const TimedValue> watts, int open_checks) {
  const Test& test = bundle.test;
  const Bench& bench = bundle.bench;
  EvidenceFacts f;
  f.lattice = view.layout.is_lattice() && view.layout.kind != GridKind::Spots;
  f.stations = static_cast<int>(view.states.size());
  f.unread = f.stations - view.read();
  f.area_m2 = view.layout.measured.area_m2();
  f.settling = walk.kind == WalkedState::Settled      ? EvidenceFacts::Settled
               : walk.kind == WalkedState::NotSettled ? EvidenceFacts::NotSettled
                                                      : EvidenceFacts::SettlingNotKnown;
  f.settling_words = walk.words;
  if (f.settling_words.ends_with('.')) f.settling_words.pop_back();
  if (view.drift.exists()) f.drift = view.drift.largest_change();
  f.power_w = sweep.power_w;
  f.power_in_the_same_state = power_in_the_same_state(bundle, sweep, walk, watts);
  f.datum = test.datum;
  if (const Meter* sensor = bundle.meter(test.sensor_id)) {
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

std::map<Id, Evidence> evidence_of(const TestRecord& bundle, const SweepViews& views, const WallLog& log) {
  std::map<Id, Evidence> evidence;
  const std::vector<TestCheck> between = checks_between(bundle, views);
  for (const Sweep& sweep : bundle.sweeps) {
    const auto view = views.find(sweep.id);
    if (view == views.end() || view->second.read() == 0) continue;
    const Stop* stop = bundle.stop(sweep.stop_id);
    const WalkedState walk = walked_state(bundle.lamp_events, log, view->second, stop ? stop->percent : 100);
    const int open = open_checks(bundle, sweep, view->second, between);
    evidence[sweep.id] = grade(evidence_facts(bundle, sweep, view->second, walk, log.watts, open));
  }
  return evidence;
}

std::map<Id, SweepJudgement> judge(const TestRecord& bundle, const SweepViews& views, const WallLog& log) {
  std::map<Id, SweepJudgement> judged;
  const auto evidence = evidence_of(bundle, views, log);
  for (const Sweep& sweep : bundle.sweeps)
    if (const auto graded = evidence.find(sweep.id); graded != evidence.end())
      judged[sweep.id] = {uncertainty_budget(budget_question(bundle, sweep, views.at(sweep.id), views)),
                          graded->second};
  return judged;
}

std::optional<Grade> test_grade(const std::map<Id, Evidence>& sweeps) {
  std::optional<Grade> weakest;
  for (const auto& [id, evidence] : sweeps)
    if (!weakest || evidence.grade < *weakest) weakest = evidence.grade;
  return weakest;
}

std::optional<Grade> test_grade(const std::map<Id, SweepJudgement>& sweeps) {
  std::map<Id, Evidence> evidence;
  for (const auto& [id, judged] : sweeps) evidence.emplace(id, judged.evidence);
  return test_grade(evidence);
}

}  // namespace sunbreak::evaluation
