#pragma once

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "core/bench/grid.h"
#include "core/figures/sweep_figures.h"
#include "core/sweep/drift.h"
#include "record/plan_grid.h"
#include "record/test_record.h"
#include "record/utc.h"

/// What is worked out of a test's record. It speaks of records throughout, so their names stand without their house.
namespace sunbreak::evaluation {

using namespace record;

/// What is known at one station.
struct StationState {
  enum Kind { Untouched, Read, Missing } kind = Untouched;
  double raw = 0;
  Id reading_id = 0;
  double taken_s = 0;  ///< since 1970, UTC; NaN where not known
  int samples = 1;
  std::optional<double> spread{};  ///< of the samples, raw
  bool at_the_bench = true;        ///< read in its turn; not pasted or from a file, where the time is the table's
  bool simulated = false;          ///< computed by a simulated bench, not measured
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
  /// Whether a reading that counts was computed by a simulated bench: the sweep measures nothing then.
  bool simulated() const;
  bool complete() const { return read() + missing() == static_cast<int>(states.size()); }

  /// Works drift and ppfd out of the states and side readings.
  void correct(const Correction& correction);
};

/// What a reading makes of its station.
StationState state_of(const Reading& reading);

/// The sweeps of a test, laid out and corrected, by id. Views never change once they are made, and are shared.
using SweepViews = std::map<Id, std::shared_ptr<const SweepView>>;

/// Lays a sweep out on its bench and picks the readings that count.
Result<SweepView> view_sweep(const TestRecord& test_record, const Sweep& sweep);

/// Lays out those of a test's sweeps that `wanted` holds for, going through its readings once.
SweepViews view_sweeps(const TestRecord& test_record, const std::function<bool(const Sweep&)>& wanted);

/// The rule by which a test's targets are served, wherever they are judged; the usual one where none is on record.
ServingRule serving_rule_of(const TestRecord& test_record);

/// Photoperiod, target, rule, watts and nominal sizes as the test has them.
FigureContext figure_context(const TestRecord& test_record, const Sweep& sweep, std::vector<Footprint> nominal_sizes);
/// The hours and the target of a test alone.
FigureContext figure_context(const Test& test);

}  // namespace sunbreak::evaluation
