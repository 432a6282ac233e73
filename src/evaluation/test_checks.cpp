#include "evaluation/test_checks.h"

#include <algorithm>
#include <cmath>

#include "core/bench/walk_order.h"
#include "core/checks/between_sweeps.h"
#include "core/checks/plausibility.h"
#include "core/checks/slipped_readings.h"
#include "core/checks/stuck_checks.h"
#include "core/figures/balance.h"
#include "core/figures/sweep_figures.h"
#include "core/spectrum/photon_yield.h"
#include "core/sweep/field.h"
#include "evaluation/check_lamps.h"
#include "evaluation/lux_walk.h"
#include "evaluation/measured_spectra.h"
#include "evaluation/rig_model.h"
#include "evaluation/sensor_spectrum.h"

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

std::optional<Finding> door_check(const TestRecord& b) {
  const bool walled = b.bench.wall_left != "open" || b.bench.wall_right != "open" || b.bench.wall_back != "open";
  if (b.test.door != "open" || !walled) return {};
  return Finding{"door open",
                 Severity::Look,
                 {},
                 "the door is stated as open while reading",
                 "light leaves by it and daylight may come in: the front reads unlike the back",
                 "close it and read the sweep again, or say on Rig that it was closed"};
}

}  // namespace

std::optional<double> photons_per_joule_of(const TestRecord& test_record) {
  const auto light = light_at_full(test_record);
  return light ? photons_per_joule(*light) : std::nullopt;
}

SweepStatement statement_of(const TestRecord& test_record, const Sweep& sweep, UnitSystem units,
                            std::optional<double> photons_per_joule) {
  SweepStatement s;
  s.units = units, s.photons_per_joule = photons_per_joule;
  s.power_w = sweep.power_w;
  for (const Claim& claim : test_record.claims)
    if (claim.kind == "power_w" && !s.claimed_power_w) s.claimed_power_w = claim.value;
  if (const Stop* stop = test_record.stop(sweep.stop_id)) s.dimmer_pct = stop->percent;
  if (const Rung* rung = test_record.rung(sweep.rung_id)) s.height_m = rung->height_m;
  for (const Rung& rung : test_record.rungs) s.heights_m.push_back(rung.height_m);
  for (const WallReading& w : test_record.wall_readings)
    if (w.sweep_id == sweep.id)
      s.wall.push_back({w.voltage_v, w.current_a, w.power_w, w.apparent_va, w.power_factor, w.frequency_hz});
  s.most_return = most_return(room_of(test_record.bench));
  const Fixture& fixture = test_record.fixture;
  if (fixture.width_m) s.fixture_width_m = *fixture.width_m * test_record.test.unit_columns;
  if (fixture.depth_m) s.fixture_depth_m = *fixture.depth_m * test_record.test.unit_rows;
  return s;
}

std::vector<int> walk_of(const Test& test, const Layout& layout) {
  const auto walk = walk_order(layout, parse_walk_order(test.walk_order).value_or(WalkOrder::FarToDoor));
  return test.opening_probe ? with_probe_first(walk, opening_probe(layout)) : walk;
}

std::vector<Finding> checks_of(const TestRecord& test_record, const Sweep& sweep, const SweepView& view,
                               const HangResponse& hang, const SweepStatement& stated) {
  const Sampled sampled(view);
  const Meter* sensor = test_record.meter(test_record.test.sensor_id);
  const std::vector<int> walk = walk_of(test_record.test, view.layout);
  auto checks = walk_checks({view.layout, walk, sampled.raw, view.ppfd, sensor ? sensor->range_max : std::nullopt,
                             &view.drift, sampled.readings, hang, stated.units});
  for (Finding& check : stuck_checks(sampled.readings)) checks.push_back(std::move(check));
  if (auto check = lux_level_check(sweep, view)) checks.push_back(std::move(*check));
  if (const Rung* rung = test_record.rung(sweep.rung_id); rung && view.read() > 0) {
    if (auto check = too_close_check(rung->height_m, test_record.fixture.emitter_spacing_m, stated.units))
      checks.push_back(std::move(*check));
    for (Finding& check : plausibility_checks(view.layout, view.ppfd, stated)) checks.push_back(std::move(check));
    std::vector<TakenReading> taken;
    for (const StationState& state : view.states)
      if (state.kind == StationState::Read)
        taken.push_back({state.at_the_bench && !state.simulated ? state.taken_s : unread, state.raw, state.spread});
    for (Finding& check : taking_checks(taken)) checks.push_back(std::move(check));
  }
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

SweepDigest digest_of(Id sweep_id, const SweepView& view) {
  SweepDigest d;
  d.sweep_id = sweep_id;
  d.stations = static_cast<int>(view.states.size());
  d.read = view.read();
  d.missing = view.missing();
  d.complete = d.read + d.missing == d.stations;
  std::vector<bool> odd(view.ppfd.size());
  for (const SlippedReading& o : slipped_readings(view.layout, view.ppfd))
    odd[static_cast<std::size_t>(o.station)] = true;
  for (std::size_t i = 0; i < view.ppfd.size(); ++i) {
    const double ppfd = view.ppfd[i];
    d.lowest_ppfd = std::fmin(d.lowest_ppfd, ppfd);
    d.highest_ppfd = std::fmax(d.highest_ppfd, ppfd);
    if (odd[i]) continue;
    d.scale_low_ppfd = std::fmin(d.scale_low_ppfd, ppfd);
    d.scale_high_ppfd = std::fmax(d.scale_high_ppfd, ppfd);
  }
  if (std::isnan(d.scale_low_ppfd)) d.scale_low_ppfd = d.lowest_ppfd, d.scale_high_ppfd = d.highest_ppfd;
  if (d.read > 0) d.mean_ppfd = area_mean(view.layout, view.ppfd);
  if (d.read == d.stations) d.center_ppfd = center_ppfd(view.layout, view.ppfd);
  return d;
}

std::vector<TestFinding> checks_between(const TestRecord& test_record, std::span<const SweepDigest> sweeps,
                                        UnitSystem units) {
  std::vector<TestFinding> checks;
  std::vector<SweepSummary> summaries;
  std::vector<Id> ids;
  bool read = false;
  for (const SweepDigest& d : sweeps) {
    read = read || d.read > 0;
    const Sweep* sweep = test_record.sweep(d.sweep_id);
    const Rung* rung = sweep ? test_record.rung(sweep->rung_id) : nullptr;
    const Stop* stop = sweep ? test_record.stop(sweep->stop_id) : nullptr;
    if (!rung || !stop || sweep->confirms || d.read < d.stations) continue;
    summaries.push_back({rung->height_m, stop->percent, d.mean_ppfd, d.center_ppfd, sweep->power_w});
    ids.push_back(d.sweep_id);
  }
  for (SweepCheck& between : between_sweeps_checks(summaries, units))
    checks.push_back({ids[between.sweep], std::move(between.check), {}});
  if (read)
    if (auto check = door_check(test_record)) checks.push_back({0, std::move(*check), {}});
  return checks;
}

std::vector<TestFinding> checks_of_meters(const TestRecord& test_record) {
  std::vector<TestFinding> checks;
  if (auto check = spectral_check(test_record)) checks.push_back({0, std::move(*check), {}});
  if (auto check = moved_sensor_check(test_record)) checks.push_back({0, std::move(*check), {}});
  return checks;
}

std::optional<Dismissal> dismissal_of(const TestRecord& test_record, Id sweep_id, const Finding& check,
                                      const SweepView* view) {
  if (check.severity == Severity::Impossible) return {};
  const std::string stations = stations_text(check);
  for (const Dismissal& d : test_record.dismissals) {
    if (d.sweep_id.value_or(0) != sweep_id || d.rule != check.id || d.stations != stations) continue;
    const double at = seconds_of(d.at);
    const bool read_since = view && std::any_of(check.stations.begin(), check.stations.end(), [&](int s) {
                              return s < static_cast<int>(view->states.size()) && view->states[s].taken_s > at;
                            });
    if (!read_since) return d;
  }
  return {};
}

std::string stations_text(const Finding& check) {
  std::string text;
  for (const int station : check.stations) text += (text.empty() ? "" : " ") + std::to_string(station);
  return text;
}

}  // namespace sunbreak::evaluation
