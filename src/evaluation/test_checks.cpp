#include "evaluation/test_checks.h"

#include <algorithm>
#include <cmath>

#include "core/bench/walk_order.h"
#include "core/checks/between_sweeps.h"
#include "core/checks/stuck_checks.h"
#include "core/figures/balance.h"
#include "core/sweep/field.h"

namespace sunbreak::evaluation {
namespace {

/// What the stations read, as the checks take it.
struct Sampled {
  explicit Sampled(const SweepView& view) {
    for (const StationState& state : view.states) {
      const bool read = state.kind == StationState::Read;
      raw.push_back(read ? state.raw : unread);
      readings.push_back(read ? SampledReading{state.samples, state.spread} : SampledReading{});
    }
  }
  std::vector<double> raw;
  std::vector<SampledReading> readings;
};

std::optional<SweepSummary> summary_of(const TestRecord& b, const Sweep& sweep, const SweepView& view) {
  const Rung* rung = b.rung(sweep.rung_id);
  const Stop* stop = b.stop(sweep.stop_id);
  if (!rung || !stop || !view.complete() || view.missing() > 0) return {};
  SweepSummary s{rung->height_m, stop->percent, 0, center_ppfd(view.layout, view.ppfd), sweep.power_w};
  for (std::size_t i = 0; i < view.ppfd.size(); ++i) s.mean_ppfd += view.layout.stations[i].weight * view.ppfd[i];
  return s;
}

std::optional<Check> door_check(const TestRecord& b) {
  const bool walled = b.bench.wall_left != "open" || b.bench.wall_right != "open" || b.bench.wall_back != "open";
  if (b.test.door != "open" || !walled) return {};
  return Check{"door open",
               Severity::Look,
               {},
               "the door is stated as open while reading",
               "light leaves by it and daylight may come in: the front reads unlike the back",
               "close it and read the sweep again, or say on Rig that it was closed"};
}

}  // namespace

std::vector<int> walk_of(const Test& test, const Layout& layout) {
  const auto walk = walk_order(layout, parse_walk_order(test.walk_order).value_or(WalkOrder::FarToDoor));
  return test.opening_probe ? with_probe_first(walk, opening_probe(layout)) : walk;
}

std::vector<Check> checks_of(const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                             const HangResponse& hang) {
  const Sampled sampled(view);
  const Meter* sensor = bundle.meter(bundle.test.sensor_id);
  const std::vector<int> walk = walk_of(bundle.test, view.layout);
  auto checks = walk_checks({view.layout, walk, sampled.raw, view.ppfd, sensor ? sensor->range_max : std::nullopt,
                             &view.drift, sampled.readings, hang});
  for (Check& check : stuck_checks(sampled.readings)) checks.push_back(std::move(check));
  if (const Rung* rung = bundle.rung(sweep.rung_id); rung && view.read() > 0)
    if (auto check = too_close_check(rung->height_m, bundle.fixture.emitter_spacing_m))
      checks.push_back(std::move(*check));
  return checks;
}

std::optional<LongerLook> longer_look(const SweepView& view, const Correction& correction, int station,
                                      const StationState& taken) {
  SweepView with = view;
  with.states[station] = taken;
  with.ppfd[station] = corrected_ppfd(taken.raw, correction) * view.drift.factor(taken.taken_s);
  const Sampled sampled(with);
  return sunbreak::longer_look(WalkedSweep{with.layout, {}, sampled.raw, with.ppfd, {}, nullptr, sampled.readings},
                               station);
}

std::vector<TestCheck> checks_between(const TestRecord& bundle, const SweepViews& views) {
  std::vector<TestCheck> checks;
  std::vector<SweepSummary> summaries;
  std::vector<Id> ids;
  for (const Sweep& sweep : bundle.sweeps) {
    const auto view = views.find(sweep.id);
    if (view == views.end()) continue;
    if (const auto summary = summary_of(bundle, sweep, *view->second)) {
      summaries.push_back(*summary);
      ids.push_back(sweep.id);
    }
  }
  for (SweepCheck& between : between_sweeps_checks(summaries))
    checks.push_back({ids[between.sweep], std::move(between.check), {}});
  if (std::any_of(views.begin(), views.end(), [](const auto& view) { return view.second->read() > 0; }))
    if (auto check = door_check(bundle)) checks.push_back({0, std::move(*check), {}});
  return checks;
}

std::optional<Dismissal> dismissal_of(const TestRecord& bundle, Id sweep_id, const Check& check,
                                      const SweepView* view) {
  const std::string stations = stations_text(check);
  for (const Dismissal& d : bundle.dismissals) {
    if (d.sweep_id.value_or(0) != sweep_id || d.rule != check.id || d.stations != stations) continue;
    const double at = seconds_of(d.at);
    const bool read_since = view && std::any_of(check.stations.begin(), check.stations.end(), [&](int s) {
                              return s < static_cast<int>(view->states.size()) && view->states[s].taken_s > at;
                            });
    if (!read_since) return d;
  }
  return {};
}

std::string stations_text(const Check& check) {
  std::string text;
  for (const int station : check.stations) text += (text.empty() ? "" : " ") + std::to_string(station);
  return text;
}

}  // namespace sunbreak::evaluation
