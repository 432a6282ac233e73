#include "book/bundle.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <ctime>
#include <nlohmann/json.hpp>
#include <unordered_map>

#include "core/bench/walk_order.h"
#include "core/checks/reading_views.h"
#include "core/sweep/field.h"

namespace sunbreak::book {
namespace {

template <typename Record>
const Record* by_id(const std::vector<Record>& records, Id id) {
  const auto found = std::find_if(records.begin(), records.end(), [&](const Record& r) { return r.id == id; });
  return found == records.end() ? nullptr : &*found;
}

/// Gives each record the id that `assign` returns for it, and remembers the change.
template <typename Record, typename Assign>
std::unordered_map<Id, Id> renumber(std::vector<Record>& records, Assign assign) {
  std::unordered_map<Id, Id> new_id;
  for (Record& record : records) {
    const Id old = record.id;
    record.id = assign(record);
    new_id[old] = record.id;
  }
  return new_id;
}

/// Walks a bundle in the order of its references and lets `assign` give each record its new id.
template <typename Assign>
void renumber_bundle(TestBundle& b, Assign assign) {
  std::vector<Fixture> fixture{b.fixture};
  renumber(fixture, assign);
  b.fixture = fixture.front();
  for (Claim& claim : b.claims) claim.fixture_id = b.fixture.id;
  renumber(b.claims, assign);
  std::vector<Bench> bench{b.bench};
  renumber(bench, assign);
  b.bench = bench.front();
  const auto meters = renumber(b.meters, assign);
  b.test.fixture_id = b.fixture.id;
  b.test.bench_id = b.bench.id;
  for (auto* id : {&b.test.sensor_id, &b.test.wall_meter_id})
    if (*id) *id = meters.at(**id);
  std::vector<Test> test{b.test};
  renumber(test, assign);
  b.test = test.front();
  for (Rung& rung : b.rungs) rung.test_id = b.test.id;
  for (Stop& stop : b.stops) stop.test_id = b.test.id;
  const auto rungs = renumber(b.rungs, assign);
  const auto stops = renumber(b.stops, assign);
  for (Sweep& sweep : b.sweeps) {
    sweep.test_id = b.test.id;
    sweep.rung_id = rungs.at(sweep.rung_id);
    sweep.stop_id = stops.at(sweep.stop_id);
  }
  const auto sweeps = renumber(b.sweeps, assign);
  for (Reading& r : b.readings) r.sweep_id = sweeps.at(r.sweep_id);
  const auto readings = renumber(b.readings, assign);
  for (Placement& p : b.placements) {
    p.sweep_id = sweeps.at(p.sweep_id);
    if (p.reading_id) p.reading_id = readings.at(*p.reading_id);
  }
  renumber(b.placements, assign);
  for (WallReading& w : b.wall_readings) {
    w.test_id = b.test.id;
    if (w.sweep_id) w.sweep_id = sweeps.at(*w.sweep_id);
  }
  renumber(b.wall_readings, assign);
  for (SideReading& s : b.side_readings) s.sweep_id = sweeps.at(s.sweep_id);
  renumber(b.side_readings, assign);
  for (Dismissal& d : b.dismissals) {
    d.test_id = b.test.id;
    if (d.sweep_id) d.sweep_id = sweeps.at(*d.sweep_id);
  }
  renumber(b.dismissals, assign);
  const auto of_the_test = [&](auto& records) {
    for (auto& record : records) record.test_id = b.test.id;
    return renumber(records, assign);
  };
  of_the_test(b.log_parts);
  of_the_test(b.lamp_events);
  const auto stair_stops = of_the_test(b.stair_stops);
  for (StairReading& r : b.stair_readings) r.stair_stop_id = stair_stops.at(r.stair_stop_id);
  renumber(b.stair_readings, assign);
  of_the_test(b.target_settings);
  of_the_test(b.temperatures);
}

std::vector<Spot> spots_from_json(const std::string& text) {
  std::vector<Spot> spots;
  const auto list = nlohmann::json::parse(text, nullptr, false);
  if (!list.is_array()) return spots;
  for (const auto& s : list) {
    if (!s.is_object() || !s.contains("x_m") || !s["x_m"].is_number() || !s.contains("y_m") || !s["y_m"].is_number())
      continue;
    spots.push_back({s.contains("name") && s["name"].is_string() ? s["name"].get<std::string>() : "",
                     s["x_m"].get<double>(), s["y_m"].get<double>()});
  }
  return spots;
}

constexpr double noise_not_known = 0.01;  ///< of a reading, while too few are there to tell by
constexpr const char* of_test = "WHERE sweep_id IN (SELECT id FROM sweep WHERE test_id = ?) ORDER BY id";

}  // namespace

const Rung* TestBundle::rung(Id id) const { return by_id(rungs, id); }
const Stop* TestBundle::stop(Id id) const { return by_id(stops, id); }
const Meter* TestBundle::meter(const std::optional<Id>& id) const { return id ? by_id(meters, *id) : nullptr; }
const Sweep* TestBundle::sweep(Id rung_id, Id stop_id) const {
  const auto found = std::find_if(sweeps.begin(), sweeps.end(),
                                  [&](const Sweep& s) { return s.rung_id == rung_id && s.stop_id == stop_id; });
  return found == sweeps.end() ? nullptr : &*found;
}

std::optional<TestBundle> load_bundle(const Book& book, Id test_id) {
  const auto test = book.find<Test>(test_id);
  if (!test) return {};
  TestBundle b;
  b.test = *test;
  b.fixture = book.find<Fixture>(test->fixture_id).value();
  b.claims = book.all<Claim>("WHERE fixture_id = ? ORDER BY id", b.fixture.id);
  b.bench = book.find<Bench>(test->bench_id).value();
  for (const auto& id : {test->sensor_id, test->wall_meter_id})
    if (id && !b.meter(id)) b.meters.push_back(book.find<Meter>(*id).value());
  b.rungs = book.all<Rung>("WHERE test_id = ? ORDER BY height_m DESC, id", test_id);
  b.stops = book.all<Stop>("WHERE test_id = ? ORDER BY percent DESC, id", test_id);
  b.sweeps = book.all<Sweep>("WHERE test_id = ? ORDER BY id", test_id);
  b.readings = book.all<Reading>(of_test, test_id);
  b.placements = book.all<Placement>(of_test, test_id);
  const char* of_the_test = "WHERE test_id = ? ORDER BY id";
  b.wall_readings = book.all<WallReading>(of_the_test, test_id);
  b.log_parts = book.all<LogPart>(of_the_test, test_id);
  b.lamp_events = book.all<LampEvent>("WHERE test_id = ? ORDER BY at, id", test_id);
  b.stair_stops = book.all<StairStop>(of_the_test, test_id);
  b.stair_readings = book.all<StairReading>(
      "WHERE stair_stop_id IN (SELECT id FROM stair_stop WHERE test_id = ?) ORDER BY id", test_id);
  b.target_settings = book.all<TargetSetting>(of_the_test, test_id);
  b.temperatures = book.all<Temperature>(of_the_test, test_id);
  b.side_readings = book.all<SideReading>(of_test, test_id);
  b.dismissals = book.all<Dismissal>(of_the_test, test_id);
  return b;
}

TestBundle without_readings(const TestBundle& b) {
  TestBundle plan;
  plan.test = b.test;
  plan.fixture = b.fixture;
  plan.bench = b.bench;
  plan.meters = b.meters;
  plan.rungs = b.rungs;
  plan.stops = b.stops;
  plan.sweeps = b.sweeps;
  return plan;
}

std::string title_of(const TestBundle& bundle) {
  return bundle.test.name.empty() ? bundle.fixture.name + " on " + bundle.bench.name : bundle.test.name;
}

Id add_bundle(Book& book, const TestBundle& bundle, const std::string& label) {
  TestBundle copy = bundle;
  book.edit(label, [&](Edit& edit) {
    renumber_bundle(copy, [&](auto record) {
      record.id = 0;
      return edit.add(record);
    });
  });
  return copy.test.id;
}

TestBundle with_plain_ids(const TestBundle& bundle) {
  TestBundle copy = bundle;
  std::unordered_map<std::string, Id> last;
  renumber_bundle(copy, [&]<typename Record>(const Record&) { return ++last[Table<Record>::name]; });
  return copy;
}

template <typename Plan>
Grid grid_of(const Plan& plan) {
  Grid grid{GridKind::Cells, plan.columns, plan.rows, plan.margin_x_m, plan.margin_y_m, spots_from_json(plan.spots)};
  if (const auto kind = parse_grid_kind(plan.grid_kind)) grid.kind = kind.value();
  return grid;
}

template <typename Plan>
void set_grid(Plan& plan, const Grid& grid) {
  plan.grid_kind = name(grid.kind);
  plan.columns = grid.columns;
  plan.rows = grid.rows;
  plan.margin_x_m = grid.margin_x_m;
  plan.margin_y_m = grid.margin_y_m;
  plan.spots.clear();
  if (grid.spots.empty()) return;
  auto spots = nlohmann::json::array();
  for (const Spot& s : grid.spots) spots.push_back({{"name", s.name}, {"x_m", s.x_m}, {"y_m", s.y_m}});
  plan.spots = spots.dump();
}

template Grid grid_of(const Test&);
template Grid grid_of(const Sweep&);
template void set_grid(Test&, const Grid&);
template void set_grid(Sweep&, const Grid&);

Correction correction_of(const Sweep& s) { return {s.dark_offset, s.calibration_factor, s.spectral_factor}; }
Correction correction_of(const TestBundle& b) {
  const Meter* sensor = b.meter(b.test.sensor_id);
  return sensor ? Correction{sensor->dark_offset, sensor->factor, 1} : Correction{};
}
Correction correction_of(const LogPart& part) { return {part.dark_offset, part.calibration_factor, 1}; }
Footprint footprint_of(const Bench& bench) { return {bench.width_m, bench.depth_m}; }

int SweepView::read() const {
  return static_cast<int>(
      std::count_if(states.begin(), states.end(), [](auto& s) { return s.kind == StationState::Read; }));
}

int SweepView::missing() const {
  return static_cast<int>(
      std::count_if(states.begin(), states.end(), [](auto& s) { return s.kind == StationState::Missing; }));
}

StationState state_of(const Reading& r) {
  return {StationState::Read,
          r.raw,
          r.id,
          seconds_of(r.taken_at),
          r.samples,
          r.spread,
          r.source != "pasted" && r.source != "file"};
}

double seconds_of(const std::string& utc) {
  std::tm t{};
  double seconds = 0;
  if (std::sscanf(utc.c_str(), "%d-%d-%dT%d:%d:%lf", &t.tm_year, &t.tm_mon, &t.tm_mday, &t.tm_hour, &t.tm_min,
                  &seconds) != 6)
    return unread;
  t.tm_year -= 1900;
  --t.tm_mon;
  return static_cast<double>(timegm(&t)) + seconds;
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

Result<SweepView> view_sweep(const TestBundle& bundle, const Sweep& sweep) {
  auto layout = lay_out(footprint_of(bundle.bench), grid_of(sweep));
  if (!layout) return layout.problem();
  SweepView view{std::move(layout.value()), {}, {}, {}, {}};
  const std::size_t count = view.layout.stations.size();
  view.states.resize(count);
  view.ppfd.assign(count, unread);
  std::unordered_map<Id, const Reading*> readings;
  for (const Reading& r : bundle.readings)
    if (r.sweep_id == sweep.id) readings[r.id] = &r;
  for (const SideReading& s : bundle.side_readings)
    if (s.sweep_id == sweep.id) view.side_readings.push_back(s);
  for (const Placement& p : bundle.placements) {
    if (p.sweep_id != sweep.id || p.station < 0 || p.station >= static_cast<int>(count)) continue;
    StationState& state = view.states[p.station];
    const auto found = p.reading_id ? readings.find(*p.reading_id) : readings.end();
    if (found == readings.end())
      state.kind = StationState::Missing;
    else
      state = state_of(*found->second);
  }
  view.correct(correction_of(sweep));
  return view;
}

FigureContext figure_context(const TestBundle& bundle, const Sweep& sweep, std::vector<Footprint> nominal_sizes) {
  FigureContext context{sweep.power_w, bundle.test.photoperiod_h, std::nullopt, std::move(nominal_sizes)};
  if (bundle.test.target_high_ppfd > bundle.test.target_low_ppfd)
    context.target = Band{bundle.test.target_low_ppfd, bundle.test.target_high_ppfd};
  return context;
}

}  // namespace sunbreak::book
