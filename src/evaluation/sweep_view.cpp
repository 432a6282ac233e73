#include "evaluation/sweep_view.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "core/bench/walk_order.h"
#include "core/checks/reading_views.h"
#include "core/sweep/field.h"

namespace sunbreak::evaluation {
namespace {

constexpr double noise_not_known = 0.01;  ///< of a reading, while too few are there to tell by

}  // namespace

int SweepView::read() const {
  return static_cast<int>(
      std::count_if(states.begin(), states.end(), [](auto& s) { return s.kind == StationState::Read; }));
}

int SweepView::missing() const {
  return static_cast<int>(
      std::count_if(states.begin(), states.end(), [](auto& s) { return s.kind == StationState::Missing; }));
}

bool SweepView::simulated() const {
  return std::any_of(states.begin(), states.end(), [](auto& s) { return s.simulated; });
}

StationState state_of(const Reading& r) {
  return {StationState::Read,
          r.raw,
          r.id,
          seconds_of(r.taken_at),
          r.samples,
          r.spread,
          r.source != "pasted" && r.source != "file",
          r.source == "simulated"};
}

void SweepView::correct(const Correction& correction) {
  std::vector<ReferencePoint> points;
  const int reference = reference_station(layout);
  for (std::size_t i = 0; i < states.size(); ++i)
    ppfd[i] = states[i].kind == StationState::Read ? corrected_ppfd(states[i].raw, correction) : unread;
  const bool re_read = std::any_of(side_readings.begin(), side_readings.end(), [&](const SideReading& s) {
    return s.purpose == "reference" && s.station == reference;
  });
  drift = {};
  if (!re_read) return;
  const double noise_by_scatter = reading_noise(layout, ppfd);
  const auto add_point = [&](double time_s, double raw, int samples, const std::optional<double>& spread) {
    const double value = raw - correction.dark_offset;
    const double noise = samples > 1 && spread && value > 0 ? *spread / std::sqrt(samples) / value
                         : std::isnan(noise_by_scatter)     ? noise_not_known
                                                            : noise_by_scatter;
    points.push_back({time_s, value, noise});
  };
  if (const StationState& own = states[reference]; own.kind == StationState::Read && own.at_the_bench)
    add_point(own.taken_s, own.raw, own.samples, own.spread);
  for (const SideReading& s : side_readings)
    if (s.purpose == "reference" && s.station == reference)
      add_point(seconds_of(s.taken_at), s.raw, s.samples, s.spread);
  drift = Drift(std::move(points));
  if (!drift.significant()) return;
  for (std::size_t i = 0; i < states.size(); ++i)
    if (states[i].at_the_bench) ppfd[i] *= drift.factor(states[i].taken_s);
}

namespace {

/// Finds readings by id: they lie in the order of their ids, where a record was read from a lab book.
class ReadingsById {
 public:
  explicit ReadingsById(const std::vector<Reading>& readings) : readings_(readings) {
    if (std::ranges::is_sorted(readings, {}, &Reading::id)) return;
    for (const Reading& r : readings) scattered_[r.id] = &r;
  }
  const Reading* find(Id id) const {
    if (!scattered_.empty()) {
      const auto found = scattered_.find(id);
      return found == scattered_.end() ? nullptr : found->second;
    }
    const auto found = std::ranges::lower_bound(readings_, id, {}, &Reading::id);
    return found != readings_.end() && found->id == id ? &*found : nullptr;
  }

 private:
  const std::vector<Reading>& readings_;
  std::unordered_map<Id, const Reading*> scattered_;
};

/// A sweep's stations with nothing read yet.
Result<SweepView> unread_view(const TestRecord& test_record, const Sweep& sweep) {
  auto layout = lay_out(footprint_of(test_record.bench), grid_of(sweep));
  if (!layout) return layout.problem();
  SweepView view{std::move(layout.value()), {}, {}, {}, {}};
  view.states.resize(view.layout.stations.size());
  view.ppfd.assign(view.states.size(), unread);
  for (const SideReading& s : test_record.side_readings)
    if (s.sweep_id == sweep.id) view.side_readings.push_back(s);
  return view;
}

void place(SweepView& view, const Placement& p, const Sweep& sweep, const ReadingsById& readings) {
  if (p.station < 0 || p.station >= std::ssize(view.states)) return;
  const Reading* reading = p.reading_id ? readings.find(*p.reading_id) : nullptr;
  if (reading && reading->sweep_id == sweep.id)
    view.states[p.station] = state_of(*reading);
  else
    view.states[p.station].kind = StationState::Missing;
}

}  // namespace

Result<SweepView> view_sweep(const TestRecord& test_record, const Sweep& sweep) {
  if (const Fault* fault = test_record.apart(sweep.id))
    return Problem{"the sweep holds what cannot be: " + fault->words(), "it is set apart and enters no figure",
                   "mend that value where it came from"};
  auto view = unread_view(test_record, sweep);
  if (!view) return view;
  const ReadingsById readings(test_record.readings);
  for (const Placement& p : test_record.placements)
    if (p.sweep_id == sweep.id) place(view.value(), p, sweep, readings);
  view.value().correct(correction_of(sweep));
  return view;
}

SweepViews view_sweeps(const TestRecord& test_record, const std::function<bool(const Sweep&)>& wanted) {
  struct Building {
    const Sweep* sweep;
    SweepView view;
  };
  std::map<Id, Building> building;
  for (const Sweep& sweep : test_record.sweeps)
    if (!test_record.apart(sweep.id) && wanted(sweep))
      if (auto view = unread_view(test_record, sweep))
        building.emplace(sweep.id, Building{&sweep, std::move(view.value())});
  SweepViews views;
  if (building.empty()) return views;
  const ReadingsById readings(test_record.readings);
  auto at = building.end();
  for (const Placement& p : test_record.placements) {
    if (at == building.end() || at->first != p.sweep_id) at = building.find(p.sweep_id);
    if (at != building.end()) place(at->second.view, p, *at->second.sweep, readings);
  }
  for (auto& [id, b] : building) {
    b.view.correct(correction_of(*b.sweep));
    views.emplace(id, std::make_shared<const SweepView>(std::move(b.view)));
  }
  return views;
}

ServingRule serving_rule_of(const TestRecord& test_record) {
  if (test_record.settlings.empty()) return {};
  const auto rule = parse_serving_rule(test_record.settlings.front().rule);
  return rule ? rule.value() : ServingRule{};
}

FigureContext figure_context(const Test& test) {
  FigureContext context{std::nullopt, test.photoperiod_h, std::nullopt, {}, {}};
  if (test.target_high_ppfd > test.target_low_ppfd) context.target = Band{test.target_low_ppfd, test.target_high_ppfd};
  return context;
}

FigureContext figure_context(const TestRecord& test_record, const Sweep& sweep, std::vector<Footprint> nominal_sizes) {
  FigureContext context = figure_context(test_record.test);
  context.power_w = sweep.power_w;
  context.rule = serving_rule_of(test_record);
  context.nominal_sizes = std::move(nominal_sizes);
  return context;
}

}  // namespace sunbreak::evaluation
