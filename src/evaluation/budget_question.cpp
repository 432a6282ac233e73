#include "evaluation/budget_question.h"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

#include "core/bench/walk_order.h"
#include "core/sweep/difference.h"
#include "core/uncertainty/height_slope.h"
#include "core/uncertainty/observed_terms.h"
#include "evaluation/test_checks.h"

namespace sunbreak::evaluation {
namespace {

/// A stated size in place of the usual one.
void state(InputQuantity& term, const std::optional<double>& value, double unit, const std::string& words) {
  if (value && *value >= 0) term = {*value * unit, Origin::Stated, words};
}

/// What its maker says of a meter. Without a word of the coverage factor it is taken as one standard deviation, which
/// is assumed.
void state(InputQuantity& term, const Meter& meter) {
  if (!meter.uncertainty_pct) return;
  state(term, meter.uncertainty_pct, 0.01, "stated for " + meter.name);
  if (meter.uncertainty_k) return;
  term.origin = Origin::Assumed;
  term.words = fmt::format("{} states {:.3g} %; whether that is one standard deviation or k = 2 is not stated",
                           meter.name, *meter.uncertainty_pct);
}

/// What is usual for the kind of meter that the light is measured with. A spectrometer weighs the spectrum right, but
/// holds its calibration and the cosine of low light less well than a quantum sensor.
void state_usual(BudgetQuestion& q, const Meter* light) {
  const bool spectrometer = light && light->kind == "spectrometer";
  const bool lux = light && light->kind == "lux";
  const std::string kind = spectrometer ? "usual for a spectrometer"
                           : lux        ? "usual for a lux meter"
                                        : "usual for a quantum sensor";
  if (lux) q.calibration.value = 0.05, q.spectral.value = 0.01, q.cosine.value = 0.02;
  if (spectrometer) q.calibration.value = 0.03, q.spectral.value = 0.005, q.cosine.value = 0.02;
  q.calibration.words = kind + "; its own is not stated";
  q.spectral.words = q.cosine.words = kind;
}

void find_height_slope(BudgetQuestion& q, const TestRecord& test_record, const Sweep& sweep, const SweepView& view,
                       const SweepViews& views) {
  const Rung* here = test_record.rung(sweep.rung_id);
  if (!here) return;
  std::vector<RungLight> rungs;
  for (const Rung& rung : test_record.rungs) {
    const Sweep* other = test_record.sweep(rung.id, sweep.stop_id);
    if (other && other->confirms) continue;
    const auto found = other ? views.find(other->id) : views.end();
    if (found != views.end() && found->second->read() > 0)
      rungs.push_back({rung.height_m, light_at(view.layout, found->second->layout, found->second->ppfd)});
  }
  q.slope_per_m = height_slope(view.layout, rungs, here->height_m);
  if (!q.slope_per_m.empty()) {
    q.height_m.words += "; slope from the rungs";
    return;
  }
  q.slope_per_m = usual_height_slope(view.layout, view.ppfd, here->height_m);
  q.height_m.words += "; slope assumed, since no other height was walked";
}

std::vector<Repeats> repeats_of(const Sweep& sweep, const SweepView& view) {
  const Correction correction = correction_of(sweep);
  std::map<int, std::vector<double>> stations;
  for (const SideReading& s : view.side_readings) {
    if (s.purpose != "repeat" || s.station < 0 || s.station >= std::ssize(view.ppfd)) continue;
    if (std::isnan(view.ppfd[s.station])) continue;
    auto& values = stations[s.station];
    if (values.empty()) values.push_back(view.ppfd[s.station]);
    values.push_back(corrected_ppfd(s.raw, correction) * view.drift.factor(seconds_of(s.taken_at)));
  }
  std::vector<Repeats> repeats;
  for (auto& [station, values] : stations) repeats.push_back({station, std::move(values)});
  return repeats;
}

/// When in the walk each station was read, 0 at its beginning and 1 at its end; by the plan's order where times are not
/// known.
std::vector<double> walked(const TestRecord& test_record, const SweepView& view) {
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
  const std::vector<int> order = walk_of(test_record.test, view.layout);
  for (std::size_t n = 0; n < order.size(); ++n)
    share[order[n]] = order.size() > 1 ? static_cast<double>(n) / static_cast<double>(order.size() - 1) : 0;
  return share;
}

/// What the meters' makers and the tester say, or what is usual.
void state_meters(BudgetQuestion& q, const TestRecord& test_record, const Sweep& sweep) {
  const Test& test = test_record.test;
  const Meter* light = test_record.meter(test.sensor_id);
  state_usual(q, light);
  q.height_m.words = q.position_m.words = q.edge_m.words = "usual for a tape and care";
  q.power.words = "usual for a plug-in meter; its own is not stated";
  if (light) state(q.calibration, *light);
  if (const Meter* wall = test_record.meter(test.wall_meter_id)) state(q.power, *wall);
  // What a lux meter's maker says is of its lux: its factor tells what it makes of PPFD.
  if (sweep.lux_k) {
    if (sweep.lux_k_expanded)
      q.calibration = {*sweep.lux_k_expanded / 2 / *sweep.lux_k, Origin::Measured, "by its lux factor"};
    else
      q.calibration = {0.05, Origin::Assumed, "its lux factor comes without a word of how sure it is"};
    if (!sweep.lux_fitted_here) q.spectral = {0.02, Origin::Assumed, "the factor is of another light of its class"};
  }
  if (sweep.moved_uncertainty_pct) {
    q.calibration.value = std::hypot(q.calibration.value, *sweep.moved_uncertainty_pct / 100);
    q.calibration.words += "; with what its check lamp tells";
  }
  state(q.spectral, test.spectral_uncertainty_pct, 0.01, "stated");
  state(q.cosine, test.cosine_uncertainty_pct, 0.01, "stated, at the lowest angles");
  state(q.height_m, test.height_uncertainty_m, 1, "stated");
  state(q.position_m, test.position_uncertainty_m, 1, "stated");
  state(q.edge_m, test.edge_uncertainty_m, 1, "stated");
}

}  // namespace

double spectral_standard(const TestRecord& test_record, const Sweep& sweep) {
  BudgetQuestion q;
  state_meters(q, test_record, sweep);
  return q.spectral.value;
}

BudgetQuestion budget_question(const TestRecord& test_record, const Sweep& sweep, const SweepView& view,
                               const SweepViews& views) {
  BudgetQuestion q;
  q.layout = &view.layout;
  q.ppfd = view.ppfd;
  q.context = figure_context(test_record, sweep, {});
  state_meters(q, test_record, sweep);
  ExpectedLight expected = expected_light(view.layout, view.ppfd);
  ObservedScatter scatter = observed_scatter(view.layout, expected, repeats_of(sweep, view), q.position_m);
  q.repeatability = std::move(scatter.repeatability), q.position_m = std::move(scatter.position_m);
  q.expected_ppfd = std::move(expected.ppfd);
  q.drift = drift_term(view.drift, scatter_at(q, reference_station(view.layout)));
  find_height_slope(q, test_record, sweep, view, views);
  q.walked = walked(test_record, view);
  return q;
}

}  // namespace sunbreak::evaluation
