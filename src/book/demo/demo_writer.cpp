#include "book/demo/demo_writer.h"

#include <fmt/format.h>

#include <cmath>

#include "book/demo/demo_claims.h"
#include "book/test_rows.h"
#include "core/bench/walk_order.h"
#include "evaluation/rig_model.h"
#include "evaluation/sweep_view.h"
#include "evaluation/test_checks.h"
#include "record/claim_kinds.h"

namespace sunbreak::book {

using namespace evaluation;
namespace {

/// Over 100 % much of what is drawn becomes heat.
double dimmed_light(double percent) {
  const double dial = percent / 100;
  return dial > 1 ? 1 + 0.4 * (dial - 1) : dial * (1.06 - 0.06 * dial);
}
double dimmed_watts(double percent) {
  const double dial = percent / 100;
  return dial > 1 ? 1 + 1.1 * (dial - 1) : 0.03 + 0.97 * dial;
}

constexpr double standby_w = 0.5;
constexpr int stabilize_again_s = 40 * 60;

}  // namespace

Test DemoWriter::add_test(const SamplePlan& plan, const Bench& bench, Id sensor, double sensor_factor, Id wall_meter) {
  const Id fixture_id = plan.retest_of != 0 ? plan.fixture.id : edit_.add(plan.fixture);
  if (plan.retest_of == 0) add_claims(plan, fixture_id, bench);
  for (BoxFact fact : plan.facts) {
    fact.fixture_id = fixture_id;
    edit_.add(fact);
  }
  Test test = test_of(plan, bench);
  test.fixture_id = fixture_id;
  test.sensor_id = sensor;
  test.wall_meter_id = wall_meter;
  test.id = edit_.add(test);
  walk_plan(plan, test, bench, sensor_factor);
  for (const SampleState& state : plan.states) walk_state(plan, state, test, bench, sensor_factor);
  ++day_;
  seconds_ = 9 * 3600;
  return test;
}

Test DemoWriter::test_of(const SamplePlan& plan, const Bench& bench) const {
  Test test;
  test.bench_id = bench.id;
  test.name = plan.title;
  set_grid(test, plan.grid);
  test.photoperiod_h = plan.photoperiod_h;
  test.target_name = plan.target_name;
  test.target_low_ppfd = plan.target.low;
  test.target_high_ppfd = plan.target.high;
  if (bench.wall_front != "open") test.door = "closed";
  test.datum = "diodes";
  test.tape_from = "sensor";
  test.checked_level = test.checked_center = test.checked_height = test.checked_fans = "yes";
  test.tested_by = "volunteer on duty";
  test.tested_on = fmt::format("2026-{:02}-{:02}", month_, day_);
  test.as_it_comes = plan.as_it_comes;
  test.hours_run = plan.hours_run;
  test.surface_limit_c = plan.surface_limit_c;
  test.mains_v = 230;
  test.mains_hz = 50;
  test.circuit_a = 16;
  test.tariff_per_kwh = 0.31;
  test.simulated = true;
  test.unit_columns = plan.units;
  if (plan.units > 1) test.unit_spacing_x_m = plan.unit_spacing_m;
  test.created_at = now();
  return test;
}

void DemoWriter::walk_plan(const SamplePlan& plan, const Test& test, const Bench& bench, double sensor_factor) {
  const Id test_id = test.id;
  std::vector<Id> rungs, stops;
  for (const double height : plan.heights_m) rungs.push_back(edit_.add(Rung{0, test_id, height}));
  for (const double percent : plan.percents) stops.push_back(edit_.add(Stop{0, test_id, percent}));
  std::optional<SamplePower> power;
  const auto stabilized = [&](double percent) { return stabilized_power(plan, bench, sensor_factor, percent); };
  if (plan.power) {
    power.emplace(edit_, test, *plan.power, [this] { return noise_(); });
    const double walk_s = seconds_of(now()), on_s = walk_s - plan.power->logged_min * 60;
    power->settle(stabilized(plan.percents.front()), on_s, walk_s);
    taken_temperatures_ = power->take_temperatures(walk_s - 120, plan.heights_m.front());
  }
  int sweep_number = 0;
  for (std::size_t s = 0; s < stops.size(); ++s) {
    if (power && s > 0 && sweep_number <= plan.walked && (sweep_number < plan.walked || plan.then_readings > 0)) {
      const double from_s = seconds_of(now());
      seconds_ += stabilize_again_s;
      power->settle(stabilized(plan.percents[s]), from_s, seconds_of(now()));
    }
    for (std::size_t r = 0; r < rungs.size(); ++r, ++sweep_number) {
      const int limit = sweep_number < plan.walked    ? most_stations
                        : sweep_number == plan.walked ? plan.then_readings
                                                      : 0;
      if (limit > 0)
        add_sweep(plan, test, bench, sensor_factor, {rungs[r], plan.heights_m[r]}, {stops[s], plan.percents[s]}, limit);
    }
  }
  if (power) {
    power->switch_off(seconds_of(now()));
    if (!plan.power->stair.empty()) {
      std::vector<StabilizedPower> ladder;
      for (const double dial : plan.power->stair) ladder.push_back(stabilized(dial));
      power->walk_stair(ladder, reference_station(lay_out(footprint_of(bench), plan.grid).value()),
                        seconds_of(now()) + 5400);
    }
  }
}

void DemoWriter::add_sweep(const SamplePlan& plan, const Test& test, const Bench& bench, double sensor_factor,
                           const At& rung, const At& stop, int limit, double light, double more_watts) {
  Sweep sweep;
  sweep.test_id = test.id;
  sweep.rung_id = rung.id;
  sweep.stop_id = stop.id;
  set_grid(sweep, plan.grid);
  sweep.calibration_factor = sensor_factor;
  const double watts = more_watts * plan.truth.watts_at_full * dimmed_watts(stop.value);
  sweep.power_w = std::round(10 * watts) / 10;
  sweep.id = edit_.add(sweep);
  const double amperes = watts / 0.97 / 230.4;
  edit_.add(WallReading{0, test.id, sweep.id, sweep.power_w, 230.4, std::round(1000 * amperes) / 1000,
                        std::round(10 * watts / 0.97) / 10, 0.97, 50.0, std::nullopt, now()});
  walk(test, sweep, bench,
       placed(plan.truth.emitters,
              {bench.width_m / 2 + plan.truth.off_x_m, bench.depth_m / 2 + plan.truth.off_y_m, rung.value},
              light * dimmed_light(stop.value)),
       limit);
}

void DemoWriter::add_claims(const SamplePlan& plan, Id fixture_id, const Bench& bench) {
  for (Claim claim : sample_claims(plan.fixture.name)) {
    claim.fixture_id = fixture_id;
    if (claim.map_columns && claim.height_m) {
      const Layout layout = lay_out({*claim.width_m, *claim.depth_m},
                                    Grid{GridKind::Cells, *claim.map_columns, *claim.map_rows, 0, 0, {}})
                                .value();
      std::vector<Vec3> places;
      for (const Station& s : layout.stations)
        places.push_back(
            {(bench.width_m - *claim.width_m) / 2 + s.x_m, (bench.depth_m - *claim.depth_m) / 2 + s.y_m, 0});
      const Prediction light = light_in(bench).predict_once(
          placed(plan.truth.emitters, {bench.width_m / 2, bench.depth_m / 2, *claim.height_m}), places);
      std::vector<double> shown;
      for (std::size_t i = 0; i < places.size(); ++i)
        shown.push_back(std::round(map_flattery(plan.fixture.name) * (light.direct[i] + light.reflected[i])));
      set_map(claim, *claim.map_columns, *claim.map_rows, shown);
    }
    edit_.add(claim);
  }
}

void DemoWriter::walk_state(const SamplePlan& plan, const SampleState& state, const Test& test, const Bench& bench,
                            double sensor_factor) {
  const Id configuration = edit_.add(Configuration{0, test.id, state.name, state.notes});
  std::vector<At> rungs, stops;
  for (const double height : state.heights_m)
    rungs.push_back({edit_.add(Rung{0, test.id, height, false, configuration}), height});
  for (const double percent : state.percents)
    stops.push_back({edit_.add(Stop{0, test.id, percent, false, configuration}), percent});
  for (const At& stop : stops)
    for (const At& rung : rungs)
      add_sweep(plan, test, bench, sensor_factor, rung, stop, most_stations, state.light, state.watts);
}

StabilizedPower DemoWriter::stabilized_power(const SamplePlan& plan, const Bench& bench, double sensor_factor,
                                             double percent) {
  const Layout layout = lay_out(footprint_of(bench), plan.grid).value();
  const Station& s = layout.stations[reference_station(layout)];
  const Vec3 place{s.x_m, s.y_m, 0};
  const auto hung = placed(plan.truth.emitters, {bench.width_m / 2 + plan.truth.off_x_m,
                                                 bench.depth_m / 2 + plan.truth.off_y_m, plan.heights_m.front()});
  const Prediction predicted = light_in(bench).predict_once(hung, {&place, 1});
  const double full = (predicted.direct[0] + predicted.reflected[0]) / sensor_factor;
  return {percent, percent > 0 ? plan.truth.watts_at_full * dimmed_watts(percent) : standby_w,
          full * dimmed_light(percent)};
}

void DemoWriter::walk(const Test& test, const Sweep& sweep, const Bench& bench, const std::vector<Emitter>& emitters,
                      int limit) {
  const Layout layout = lay_out(footprint_of(bench), grid_of(sweep)).value();
  const Prediction predicted = light_in(bench).predict(emitters, stations_of(bench, layout));
  const auto shown = [&](int station, double noise) {
    const double ppfd = predicted.direct[station] + predicted.reflected[station];
    seconds_ += 6;
    return std::round(10 * ppfd * (1 + noise * noise_()) / sweep.calibration_factor) / 10;
  };
  int read = 0;
  for (const int station : walk_of(test, layout)) {
    if (read == limit) break;
    const double raw = shown(station, 0.006);
    edit_.accept({0, sweep.id, station, raw, "simulated", now()});
    if (++read % test.reference_every != 0) continue;
    const int reference = reference_station(layout);
    const double again = shown(reference, 0.001);
    edit_.add(SideReading{0, sweep.id, reference, "reference", again, "simulated", now()});
  }
  seconds_ += 600;
}

const RoomLight& DemoWriter::light_in(const Bench& bench) {
  const auto found = rooms_.find(bench.id);
  return found != rooms_.end() ? found->second : rooms_.emplace(bench.id, RoomLight(room_of(bench))).first->second;
}

const StationFactors& DemoWriter::stations_of(const Bench& bench, const Layout& layout) {
  if (bench.id != stations_bench_ || layout.stations != walked_stations_) {
    std::vector<Vec3> places;
    for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
    stations_bench_ = bench.id, walked_stations_ = layout.stations;
    stations_ = light_in(bench).stations(places);
  }
  return stations_;
}

std::string DemoWriter::now() const {
  return fmt::format("2026-{:02}-{:02}T{:02}:{:02}:{:02}.000Z", month_, day_, seconds_ / 3600, seconds_ / 60 % 60,
                     seconds_ % 60);
}

}  // namespace sunbreak::book
