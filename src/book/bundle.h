#pragma once

#include <map>
#include <optional>
#include <vector>

#include "book/book.h"
#include "core/bench/grid.h"
#include "core/figures/sweep_figures.h"
#include "core/sweep/correction.h"
#include "core/sweep/drift.h"

namespace sunbreak::book {

/// Everything the lab book knows of one test: what is shown, reported and published.
struct TestBundle {
  Test test;
  Fixture fixture;
  std::vector<Claim> claims;
  Bench bench;
  std::vector<Meter> meters;  ///< those the test names
  std::vector<Rung> rungs;    ///< highest first
  std::vector<Stop> stops;    ///< brightest first
  std::vector<Sweep> sweeps;
  std::vector<Reading> readings;  ///< all ever taken, in the order they were taken
  std::vector<Placement> placements;
  std::vector<WallReading> wall_readings;
  std::vector<SideReading> side_readings;
  std::vector<Dismissal> dismissals;
  std::vector<LogPart> log_parts;  ///< packed; wall_log.h unpacks them
  std::vector<LampEvent> lamp_events;
  std::vector<StairStop> stair_stops;
  std::vector<StairReading> stair_readings;
  std::vector<TargetSetting> target_settings;
  std::vector<Temperature> temperatures;

  const Rung* rung(Id id) const;
  const Stop* stop(Id id) const;
  const Meter* meter(const std::optional<Id>& id) const;
  const Sweep* sweep(Id rung_id, Id stop_id) const;
  bool operator==(const TestBundle&) const = default;
};

/// Reads a test with all that hangs on it; nothing where there is no such test.
std::optional<TestBundle> load_bundle(const Book& book, Id test_id);

/// The test without its readings and logs: what another thread needs beside laid-out sweeps.
TestBundle without_readings(const TestBundle& bundle);

/// The test's name, or where it has none its fixture's and bench's.
std::string title_of(const TestBundle& bundle);

/// Adds a test with all that hangs on it under new ids, as one edit. Returns the new test's id.
Id add_bundle(Book& book, const TestBundle& bundle, const std::string& label);

/// The same bundle with its ids counted from 1 in a fixed order: two bundles with equal content compare equal.
TestBundle with_plain_ids(const TestBundle& bundle);

/// The grid of a plan or of a sweep; `spots` that cannot be read count as none.
template <typename Plan>
Grid grid_of(const Plan& plan);
extern template Grid grid_of(const Test&);
extern template Grid grid_of(const Sweep&);

/// Copies a grid into a plan or a sweep.
template <typename Plan>
void set_grid(Plan& plan, const Grid& grid);
extern template void set_grid(Test&, const Grid&);
extern template void set_grid(Sweep&, const Grid&);

Correction correction_of(const Sweep& sweep);
/// As the test's sensor is set now; none where the test names no sensor.
Correction correction_of(const TestBundle& bundle);
Correction correction_of(const LogPart& part);
Footprint footprint_of(const Bench& bench);

/// What is known at one station.
struct StationState {
  enum Kind { Untouched, Read, Missing } kind = Untouched;
  double raw = 0;
  Id reading_id = 0;
  double taken_s = 0;  ///< since 1970, UTC; NaN where not known
  int samples = 1;
  std::optional<double> spread{};  ///< of the samples, raw
  bool at_the_bench = true;        ///< read in its turn; not pasted or from a file, where the time is the table's
};

/// A sweep's stations by index, laid out and corrected.
struct SweepView {
  Layout layout;
  std::vector<StationState> states;
  std::vector<double> ppfd;  ///< corrected for dark, calibration, spectrum and drift; NaN where unread
  std::vector<SideReading> side_readings{};
  Drift drift{};

  int read() const;
  int missing() const;
  bool complete() const { return read() + missing() == static_cast<int>(states.size()); }

  /// Works drift and ppfd out of the states and side readings.
  void correct(const Correction& correction);
};

/// What a reading makes of its station.
StationState state_of(const Reading& reading);

/// A UTC time as the lab book writes it, in seconds since 1970; NaN where it is none.
double seconds_of(const std::string& utc);

/// Lays a sweep out on its bench and picks the readings that count.
Result<SweepView> view_sweep(const TestBundle& bundle, const Sweep& sweep);

/// Photoperiod, target, watts and nominal sizes as the test has them.
FigureContext figure_context(const TestBundle& bundle, const Sweep& sweep, std::vector<Footprint> nominal_sizes);

}  // namespace sunbreak::book
