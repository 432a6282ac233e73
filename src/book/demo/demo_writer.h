#pragma once

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "book/book.h"
#include "book/demo/demo_power.h"
#include "core/bench/grid.h"
#include "core/figures/coverage.h"
#include "core/optics/room_light.h"
#include "core/quantity/normal_deviates.h"

namespace sunbreak::book {

/// How a sample fixture is made: emitters about its middle, and the truth its readings are computed from.
struct FixtureTruth {
  std::vector<Emitter> emitters;
  double off_x_m = 0, off_y_m = 0;
  double watts_at_full = 0;
};

/// Another state of the fixture, walked beside the one it comes in.
struct SampleState {
  const char *name, *notes;
  double light = 1, watts = 1;  ///< beside the fixture as it comes
  std::vector<double> heights_m, percents;
};

/// One sample test: what the plan says and how far it has been walked.
struct SamplePlan {
  const char* title;
  Fixture fixture;
  FixtureTruth truth;
  std::vector<double> heights_m, percents;
  Grid grid;
  const char* target_name;
  Band target;
  double photoperiod_h = 12;
  int walked;             ///< sweeps walked whole, brightest stop first down the rungs
  int then_readings = 0;  ///< readings of the sweep after those
  std::optional<PowerTruth> power{};
  int units = 1;  ///< side by side
  double unit_spacing_m = 0;
  std::vector<BoxFact> facts{};
  std::vector<SampleState> states{};
  const char* as_it_comes = "";
  std::optional<double> hours_run{}, surface_limit_c{};
  Id retest_of = 0;  ///< its fixture is this one's
};

/// Walks sample tests and writes them into a lab book, with a truth of each fixture and noise from a fixed seed.
class DemoWriter {
 public:
  DemoWriter(Edit& edit, std::uint64_t seed) : edit_(edit), noise_(seed) {}

  Bench add_bench(Bench bench) {
    bench.id = edit_.add(bench);
    return bench;
  }
  Id add_meter(const Meter& meter) { return edit_.add(meter); }

  /// Returns the test's id, and in `test.fixture_id` its fixture's.
  Test add_test(const SamplePlan& plan, const Bench& bench, Id sensor, double sensor_factor, Id wall_meter);

  /// Of the latest test.
  const std::vector<Id>& taken_temperatures() const { return taken_temperatures_; }

  void in_month(int month, int day) { month_ = month, day_ = day; }

 private:
  struct At {
    Id id;
    double value;
  };

  Test test_of(const SamplePlan& plan, const Bench& bench) const;
  void walk_plan(const SamplePlan& plan, const Test& test, const Bench& bench, double sensor_factor);
  void add_sweep(const SamplePlan& plan, const Test& test, const Bench& bench, double sensor_factor, const At& rung,
                 const At& stop, int limit, double light = 1, double more_watts = 1);
  /// A maker's map shows the light under the fixture as it should hang, a little brighter.
  void add_claims(const SamplePlan& plan, Id fixture_id, const Bench& bench);
  void walk_state(const SamplePlan& plan, const SampleState& state, const Test& test, const Bench& bench,
                  double sensor_factor);
  StabilizedPower stabilized_power(const SamplePlan& plan, const Bench& bench, double sensor_factor, double percent);
  void walk(const Test& test, const Sweep& sweep, const Bench& bench, const std::vector<Emitter>& emitters, int limit);
  const RoomLight& light_in(const Bench& bench);
  /// A bench's sweeps are walked over the same stations height by height.
  const StationFactors& stations_of(const Bench& bench, const Layout& layout);
  std::string now() const;

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

}  // namespace sunbreak::book
