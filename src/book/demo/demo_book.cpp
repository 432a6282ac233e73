#include "book/demo/demo_book.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdint>
#include <map>
#include <numbers>

#include "book/demo/demo_claims.h"
#include "book/demo/demo_meters.h"
#include "book/demo/demo_pictures.h"
#include "book/demo/demo_power.h"
#include "book/demo/demo_spectra.h"
#include "book/test_rows.h"
#include "core/bench/walk_order.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/room_light.h"
#include "core/quantity/normal_deviates.h"
#include "evaluation/rig_model.h"
#include "evaluation/sweep_view.h"
#include "evaluation/test_checks.h"
#include "record/claim_kinds.h"

namespace sunbreak::book {

using namespace evaluation;
namespace {

/// How a sample fixture is made: emitters about its middle, and the truth its readings are computed from.
struct Truth {
  std::vector<Emitter> emitters;
  double off_x_m = 0, off_y_m = 0;
  double watts_at_full = 0;
};

double dimmed_light(double percent) { return percent / 100 * (1.06 - 0.06 * percent / 100); }
double dimmed_watts(double percent) { return 0.03 + 0.97 * percent / 100; }

constexpr double standby_w = 0.5;
constexpr int stabilize_again_s = 40 * 60;

/// Another state of the fixture, walked beside the one it comes in.
struct State {
  const char *name, *notes;
  double light = 1, watts = 1;  ///< beside the fixture as it comes
  std::vector<double> heights_m, percents;
};

/// One sample test: what the plan says and how far it has been walked.
struct Plan {
  const char* title;
  Fixture fixture;
  Truth truth;
  Id bench_id;
  std::vector<double> heights_m, percents;
  Grid grid;
  const char* target_name;
  Band target;
  double photoperiod_h;
  int walked;         ///< sweeps walked whole, brightest stop first down the rungs
  int then_readings;  ///< readings of the sweep after those
  std::optional<PowerTruth> power{};
  int units = 1;  ///< side by side
  double unit_spacing_m = 0;
  std::vector<BoxFact> facts{};
  std::vector<State> states{};
  const char* as_it_comes = "";
  std::optional<double> hours_run{}, surface_limit_c{};
  Id retest_of = 0;  ///< its fixture is this one's
};

class DemoWriter {
 public:
  DemoWriter(Edit& edit, std::uint64_t seed) : edit_(edit), noise_(seed) {}

  Bench add_bench(Bench bench) {
    bench.id = edit_.add(bench);
    return bench;
  }
  Id add_meter(const Meter& meter) { return edit_.add(meter); }

  /// Returns the test's id, and in `test.fixture_id` its fixture's.
  Test add_test(const Plan& plan, const Bench& bench, Id sensor, double sensor_factor, Id wall_meter) {
    const Id fixture_id = plan.retest_of != 0 ? plan.fixture.id : edit_.add(plan.fixture);
    if (plan.retest_of == 0) add_claims(plan, fixture_id, bench);
    for (BoxFact fact : plan.facts) {
      fact.fixture_id = fixture_id;
      edit_.add(fact);
    }
    Test test;
    test.fixture_id = fixture_id;
    test.bench_id = bench.id;
    test.sensor_id = sensor;
    test.wall_meter_id = wall_meter;
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
    test.id = edit_.add(test);
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
          add_sweep(plan, test, bench, sensor_factor, {rungs[r], plan.heights_m[r]}, {stops[s], plan.percents[s]},
                    limit);
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
    for (const State& state : plan.states) walk_state(plan, state, test, bench, sensor_factor);
    ++day_;
    seconds_ = 9 * 3600;
    return test;
  }

  /// Of the latest test.
  const std::vector<Id>& taken_temperatures() const { return taken_temperatures_; }

  void in_month(int month, int day) { month_ = month, day_ = day; }

 private:
  struct At {
    Id id;
    double value;
  };

  void add_sweep(const Plan& plan, const Test& test, const Bench& bench, double sensor_factor, const At& rung,
                 const At& stop, int limit, double light = 1, double more_watts = 1) {
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

  /// A maker's map shows the light under the fixture as it should hang, a little brighter.
  void add_claims(const Plan& plan, Id fixture_id, const Bench& bench) {
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

  void walk_state(const Plan& plan, const State& state, const Test& test, const Bench& bench, double sensor_factor) {
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

  StabilizedPower stabilized_power(const Plan& plan, const Bench& bench, double sensor_factor, double percent) {
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

  void walk(const Test& test, const Sweep& sweep, const Bench& bench, const std::vector<Emitter>& emitters, int limit) {
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

  const RoomLight& light_in(const Bench& bench) {
    const auto found = rooms_.find(bench.id);
    return found != rooms_.end() ? found->second : rooms_.emplace(bench.id, RoomLight(room_of(bench))).first->second;
  }

  /// A bench's sweeps are walked over the same stations height by height.
  const StationFactors& stations_of(const Bench& bench, const Layout& layout) {
    if (bench.id != stations_bench_ || layout.stations != walked_stations_) {
      std::vector<Vec3> places;
      for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
      stations_bench_ = bench.id, walked_stations_ = layout.stations;
      stations_ = light_in(bench).stations(places);
    }
    return stations_;
  }

  std::string now() const {
    return fmt::format("2026-{:02}-{:02}T{:02}:{:02}:{:02}.000Z", month_, day_, seconds_ / 3600, seconds_ / 60 % 60,
                       seconds_ % 60);
  }

  Edit& edit_;
  NormalDeviates noise_;
  std::map<Id, RoomLight> rooms_;
  Id stations_bench_ = 0;
  std::vector<Station> walked_stations_;
  StationFactors stations_;
  std::vector<Id> taken_temperatures_;
  int month_ = 3, day_ = 14;
  int seconds_ = 9 * 3600;
};

/// Emitters of a unit, the widest gap between them, and the beam.
struct Build {
  int across = 8, deep = 8;
  double gap_m = 0.03, beam_deg = 120;
};

Fixture fixture(const char* name, const char* maker, const char* kind, const char* emitters, double width, double depth,
                double price, const Build& build) {
  Fixture f;
  f.emitters_across = build.across;
  f.emitters_deep = build.deep;
  f.emitter_spacing_m = build.gap_m;
  f.beam_angle_deg = build.beam_deg;
  f.name = name;
  f.maker = maker;
  f.kind = kind;
  f.emitters = emitters;
  f.width_m = width;
  f.depth_m = depth;
  if (price > 0) f.price = price;
  f.currency = "EUR";
  f.obtained = "bought by the library";
  f.interest = "none";
  return f;
}

BoxFact fact(const char* name, const char* source, std::optional<double> value, const char* words) {
  return {0, 0, name, source, value, words};
}
BoxFact stated(const char* name, double value) { return fact(name, "stated", value, ""); }
BoxFact stated(const char* name, const char* words) { return fact(name, "stated", {}, words); }
BoxFact checked(const char* name, double value) { return fact(name, "checked", value, ""); }
BoxFact checked(const char* name, const char* words) { return fact(name, "checked", {}, words); }

}  // namespace

void fill_demo(Book& book) {
  book.edit("Sample lab book", [](Edit& edit) {
    DemoWriter writer(edit, 20260314);
    const Bench tent = writer.add_bench(
        {0, "Drying loft tent", 1.2, 1.2, 2.0, "reflective", "reflective", "reflective", "reflective", "", false});
    const Bench bay = writer.add_bench(
        {0, "Window bay", 0.6, 1.2, 1.6, "reflective", "reflective", "reflective", "reflective", "", false});
    const Bench floor = writer.add_bench({0, "Loft floor", 1.2, 1.2, 2.4, "open", "open", "open", "open",
                                          "No walls: light past the edge is lost.", false});
    const double factor = 1.012;
    Meter known{0, "quantum", "QS-1", "2025-04-22", factor, 0, 2.5, 4000.0, 0.032, 0.03, "", false, 2};
    know_response(known);
    const Id qs1 = writer.add_meter(known);
    const Id qs0 = writer.add_meter({0, "quantum", "QS-0", "2021-05-11", 1, 0, 5.0, 3000.0, 0.028, 0.025,
                                     "Older; reads 3 % low beside QS-1.", false, 2});
    const Id w1 =
        writer.add_meter({0, "wall", "W-1", "2025-11-02", 1, 0, 1.0, 3680.0, std::nullopt, std::nullopt, "", false, 2});

    edit.add(sample_lux_factor(writer.add_meter(sample_lux_meter())));
    for (const CheckLampReading& reading : sample_check_readings(qs1, qs0)) edit.add(reading);

    const Grid twelve{GridKind::Cells, 12, 12, 0, 0, {}}, bay_grid{GridKind::Cells, 6, 12, 0, 0, {}},
        eight{GridKind::Inset, 8, 8, 0.05, 0.05, {}};
    const Band fruiting{555, 925}, leafy{210, 295}, sprouts{105, 175};

    const Test ostler =
        writer.add_test({"Ostler Six-Bar in the tent",
                         fixture("Ostler Six-Bar", "Ostler", "six LED bars", "6 bars, 20 cm apart, white with red",
                                 1.08, 1.06, 389, {6, 18, 0.20, 120}),
                         {bars(6, 1.0, 1.02, 18, 896), 0.01, 0, 322},
                         tent.id,
                         {0.6, 0.45, 0.3, 0.2},
                         {100, 75, 50},
                         twelve,
                         "flowering & fruiting",
                         fruiting,
                         12,
                         12,
                         0,
                         PowerTruth{0.045,
                                    420,
                                    75,
                                    {100, 90, 75, 50, 30, 20, 10, 0, 100},
                                    {{"air", "contact", 23.4, {}, {}},
                                     {"driver", "infrared", 51.8, 0.95, 0.92},
                                     {"bar top", "infrared", 44.6, 0.95, 0.90},
                                     {"bar underside", "infrared", 47.9, 0.95, 0.90},
                                     {"leaf", "infrared", 25.1, 0.95, 0.96},
                                     {"swatch", "infrared", 27.4, 0.95, 0.95, false, "black"}}},
                         1,
                         0,
                         {stated("weight", 9.4),
                          checked("weight", 9.65),
                          stated("outer_length_m", 1.1),
                          stated("outer_width_m", 1.08),
                          stated("outer_height_m", 0.07),
                          checked("condition", "new"),
                          checked("contents", "lamp, two hangers, cord, a leaflet"),
                          checked("assembly_min", 25),
                          stated("driver_kind", "built in"),
                          checked("driver_place", "across the middle, on top"),
                          stated("emitter_count", 1728),
                          stated("emitter_mix", "white, with red at 660 nm"),
                          checked("lenses", "none"),
                          stated("ip_code", "IP65"),
                          stated("warranty_years", 5),
                          checked("cooling", "passive"),
                          checked("noise_words", "none at any setting"),
                          checked("cord_length_m", 1.8),
                          stated("voltages", "100–277 V"),
                          stated("dimming", "knob"),
                          stated("dimming_low_pct", 10),
                          stated("dimming_high_pct", 100),
                          stated("chain_power", 4)},
                         {},
                         "",
                         40},
                        tent, qs1, factor, w1);
    const Id ostler_driver = writer.taken_temperatures().at(1);
    writer.add_test(
        {"Brindle Panel 150 in the tent",
         fixture("Brindle Panel 150", "Brindle", "one LED board, passive cooling", "board 25 × 28 cm, white", 0.26,
                 0.30, 149, {10, 10, 0.03, 120}),
         {board(0.24, 0.27, 10, 10, 392), 0, 0, 152},
         tent.id,
         {0.6, 0.45, 0.3},
         {100},
         twelve,
         "flowering & fruiting",
         fruiting,
         12,
         3,
         0,
         PowerTruth{
             0.07, 3000, 170, {}, {{"air", "contact", 22.8, {}, {}}, {"bar top", "infrared", 41.0, 0.95, {}, true}}}},
        tent, qs1, factor, w1);
    writer.add_test({"Pell Narrow 300 on the loft floor",
                     fixture("Pell Narrow 300", "Pell", "one long strip of lensed pucks",
                             "9 lensed pucks in a row, 11 cm apart", 0.1, 0.98, 119, {1, 9, 0.11, 60}),
                     {bars(1, 0, 0.88, 9, 432, 4.8), 0, 0, 228},
                     floor.id,
                     {0.6, 0.45},
                     {100},
                     eight,
                     "flowering & fruiting",
                     fruiting,
                     12,
                     2,
                     0},
                    floor, qs1, factor, w1);
    writer.add_test(
        {"Wicket Four-Tube in the window bay",
         fixture("Wicket Four-Tube", "Wicket", "four fluorescent tubes", "4 tubes of 110 cm, 14 cm apart", 0.56, 1.18,
                 85, {4, 16, 0.14, 120}),
         {bars(4, 0.42, 1.1, 16, 118), 0, 0, 112},
         bay.id,
         {0.4, 0.2},
         {100},
         bay_grid,
         "propagation",
         sprouts,
         16,
         2,
         0,
         PowerTruth{-0.06, 500, 60, {}, {{"air", "contact", 21.9, {}, {}}, {"ballast", "contact", 71.5, {}, {}}}}},
        bay, qs1, factor, w1);
    writer.add_test(
        {"Bess 400 in the tent",
         fixture("Bess 400", "Bess", "sodium lamp in a deep hood", "one lamp in a deep hood", 0.5, 0.4, 0,
                 {8, 4, 0.05, 80}),
         {reflector_lamp(0.3, 0.16, 640, 2.6), 0, 0, 434},
         tent.id,
         {0.8, 0.6},
         {100},
         twelve,
         "flowering & fruiting",
         fruiting,
         12,
         2,
         0,
         PowerTruth{0.03, 380, 18, {}, {{"air", "contact", 24.6, {}, {}}, {"ballast", "infrared", 84.0, 0.95, 0.93}}},
         1,
         0,
         {checked("hours_run", 6200)},
         {{"a new lamp", "the same hood and ballast", 1.19, 1.01, {0.8, 0.6}, {100}}},
         "lamp of 6,200 h"},
        tent, qs1, factor, w1);
    writer.add_test({"Marrow Twin in the tent",
                     fixture("Marrow Twin", "Marrow", "two LED panels, spacing adjustable",
                             "2 panels, 58 cm apart, white with red", 0.36, 0.5, 460, {8, 10, 0.05, 120}),
                     {joined(placed(tilted(board(0.3, 0.44, 8, 10, 600), 1.5, 0), {-0.29, 0, 0}),
                             placed(board(0.3, 0.44, 8, 10, 600), {0.29, 0, 0})),
                      0, 0, 471},
                     tent.id,
                     {0.6, 0.45, 0.3},
                     {110, 100, 60},
                     twelve,
                     "flowering & fruiting",
                     fruiting,
                     12,
                     4,
                     59,
                     PowerTruth{0.05,
                                600,
                                70,
                                {100, 110, 100, 80, 60, 40, 20, 0, 100},
                                {{"air", "contact", 23.1, {}, {}},
                                 {"driver", "infrared", 55.2, 0.95, 0.93, false, "", 100, -40},
                                 {"driver", "infrared", 58.6, 0.95, 0.93, false, "", 100, -12},
                                 {"driver", "infrared", 66.4, 0.95, 0.93, false, "", 110, 0, 71.0, 42.5}}},
                     2,
                     0.58,
                     {},
                     {},
                     "",
                     {},
                     63},
                    tent, qs1, factor, w1);
    writer.add_test({"Tansy Round 60 in the window bay",
                     fixture("Tansy Round 60", "Tansy", "small round LED board", "round board of 22 cm, white", 0.22,
                             0.22, 59, {6, 6, 0.03, 120}),
                     {disc(0.1, 5, 158), 0, 0, 59},
                     bay.id,
                     {0.45, 0.3},
                     {100},
                     bay_grid,
                     "leafy & herbs",
                     leafy,
                     16,
                     1,
                     0},
                    bay, qs1, factor, w1);
    Fixture again = fixture("", "", "", "", 0, 0, 0, {});
    again.id = ostler.fixture_id;
    writer.in_month(10, 12);
    const Test later = writer.add_test({"Ostler Six-Bar, seven months on",
                                        again,
                                        {bars(6, 1.0, 1.02, 18, 896 * 0.968), 0.006, 0, 320},
                                        tent.id,
                                        {0.6, 0.45},
                                        {100},
                                        twelve,
                                        "flowering & fruiting",
                                        fruiting,
                                        12,
                                        2,
                                        0,
                                        {},
                                        1,
                                        0,
                                        {},
                                        {},
                                        "",
                                        2540,
                                        {},
                                        ostler.id},
                                       tent, qs1, factor, w1);
    Test first = ostler, repeated = later;
    first.mark = repeated.retest_of = "5b0c3a51a6f14f0e9d2f7c1a84e6d390";
    repeated.retest_unit = "same";
    edit.save(first);
    edit.save(repeated);
    for (MeasuredSpectrum spectrum : sample_spectra()) {
      spectrum.test_id = ostler.id;
      edit.add(spectrum);
    }
    const Id basil = edit.add(GrowthNote{0, ostler.id, "2026-05-02", "basil at 60 cm, 75 %: even over the whole tray"});
    edit.add(GrowthNote{0, ostler.id, "2026-06-20", "tomatoes at 45 cm: first trusses, the corners a week behind"});
    add_sample_pictures(edit, ostler, ostler_driver, basil);
  });
  book.forget_history();
}

}  // namespace sunbreak::book
