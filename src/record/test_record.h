#pragma once

#include <functional>
#include <optional>
#include <string>
#include <type_traits>
#include <vector>

#include "record/faults.h"
#include "record/kinds/bench.h"
#include "record/kinds/box_fact.h"
#include "record/kinds/card_row.h"
#include "record/kinds/check_lamp_reading.h"
#include "record/kinds/claim.h"
#include "record/kinds/configuration.h"
#include "record/kinds/crop_target.h"
#include "record/kinds/dismissal.h"
#include "record/kinds/fitted_lux_factor.h"
#include "record/kinds/fixture.h"
#include "record/kinds/fixture_picture.h"
#include "record/kinds/growth_note.h"
#include "record/kinds/guest.h"
#include "record/kinds/lamp_event.h"
#include "record/kinds/log_part.h"
#include "record/kinds/measured_spectrum.h"
#include "record/kinds/meter.h"
#include "record/kinds/own_size.h"
#include "record/kinds/picture.h"
#include "record/kinds/placement.h"
#include "record/kinds/reading.h"
#include "record/kinds/rung.h"
#include "record/kinds/saved_line_up.h"
#include "record/kinds/sensor_comparison.h"
#include "record/kinds/settling.h"
#include "record/kinds/side_reading.h"
#include "record/kinds/stair_reading.h"
#include "record/kinds/stair_stop.h"
#include "record/kinds/stop.h"
#include "record/kinds/sweep.h"
#include "record/kinds/target_setting.h"
#include "record/kinds/temperature.h"
#include "record/kinds/test.h"
#include "record/kinds/verdict_sentence.h"
#include "record/kinds/wall_reading.h"

namespace sunbreak::record {

/// Everything that is on record of one test: what is shown, worked out, reported and published. Plain values; a copy is
/// a snapshot that another thread may have. Made, copied and taken down in one file: compiled wherever a record is
/// held, its tables would be a tenth of the program.
struct TestRecord {
  TestRecord();
  ~TestRecord();
  TestRecord(const TestRecord&);
  TestRecord(TestRecord&&) noexcept;
  TestRecord& operator=(const TestRecord&);
  TestRecord& operator=(TestRecord&&) noexcept;
  bool operator==(const TestRecord&) const;

  Test test;
  Fixture fixture;
  Bench bench;
  std::vector<Claim> claims;
  std::vector<Meter> meters;  ///< those the test names, and those that read the same check lamps
  std::vector<FittedLuxFactor> lux_factors{};
  std::vector<CheckLampReading> check_readings{};  ///< of the lamps that the test's sensor was held against
  std::vector<Rung> rungs;                         ///< highest first
  std::vector<Stop> stops;                         ///< brightest first
  std::vector<Sweep> sweeps;
  std::vector<Reading> readings;  ///< all ever taken, in the order they were taken
  std::vector<Placement> placements;
  std::vector<WallReading> wall_readings;
  std::vector<SideReading> side_readings;
  std::vector<Dismissal> dismissals;
  std::vector<LogPart> log_parts;  ///< packed; log_samples.h unpacks them
  std::vector<LampEvent> lamp_events;
  std::vector<StairStop> stair_stops;
  std::vector<StairReading> stair_readings;
  std::vector<TargetSetting> target_settings;
  std::vector<Temperature> temperatures;
  std::vector<OwnSize> own_sizes{};
  std::vector<Settling> settlings{};  ///< one at most
  std::vector<CardRow> card_rows{};
  std::vector<BoxFact> box_facts{};
  std::vector<Configuration> configurations{};  ///< beside the fixture as it comes
  std::vector<GrowthNote> growth_notes{};
  std::vector<FixturePicture> fixture_pictures{};
  std::vector<Picture> pictures{};
  std::vector<VerdictSentence> verdict_sentences{};
  std::vector<MeasuredSpectrum> spectra{};
  /// Where this is the part of a record that is of one configuration (record/configurations.h): its id, or 0 for the
  /// fixture as it comes. No part of the lab book.
  Id configuration_id = 0;
  /// What in it cannot be, as found by who read it from a lab book: sweeps that these would enter are set apart.
  std::vector<Fault> faults{};

  /// Whether a height and setting are part of the plan: extra ones are there for single sweeps alone.
  bool planned(const Rung& rung, const Stop& stop) const { return !rung.extra && !stop.extra; }
  std::vector<Rung> planned_rungs() const;
  std::vector<Stop> planned_stops() const;
  std::size_t planned_sweeps() const { return planned_rungs().size() * planned_stops().size(); }
  const Rung* rung(Id id) const;
  const Stop* stop(Id id) const;
  const Meter* meter(const std::optional<Id>& id) const;
  const Sweep* sweep(Id id) const;
  const Sweep* sweep(Id rung_id, Id stop_id) const;
  /// Why a sweep is set apart: it enters no figure. Null where it is not.
  const Fault* apart(Id sweep_id) const;
};

template <typename Part>
struct RecordOf {
  using type = Part;
};
template <typename Record>
struct RecordOf<std::vector<Record>> {
  using type = Record;
};
template <typename Part>
struct RecordOf<Part TestRecord::*> : RecordOf<Part> {};

/// Types of records, in an order.
template <typename... Record>
struct RecordTypes {
  /// Calls `visit` with std::type_identity of each.
  template <typename Visit>
  static constexpr void each(Visit visit) {
    (visit(std::type_identity<Record>{}), ...);
  }

  /// Where one stands that is among them.
  template <typename Wanted>
  static consteval std::size_t index_of() {
    constexpr bool is_it[] = {std::is_same_v<Wanted, Record>...};
    std::size_t at = 0;
    while (!is_it[at]) ++at;
    return at;
  }
};

/// Parts of a test's record, as pointers to its members.
template <auto... part>
struct Parts {
  /// Calls `visit` with each.
  template <typename Visit>
  static void each(Visit visit) {
    (visit(part), ...);
  }

  /// The types of their rows, and `More`.
  template <typename... More>
  using Types = RecordTypes<typename RecordOf<decltype(part)>::type..., More...>;
};

/// All of them, each after those that it refers to.
using TestTables =
    Parts<&TestRecord::fixture, &TestRecord::claims, &TestRecord::box_facts, &TestRecord::fixture_pictures,
          &TestRecord::bench, &TestRecord::meters, &TestRecord::lux_factors, &TestRecord::check_readings,
          &TestRecord::test, &TestRecord::configurations, &TestRecord::rungs, &TestRecord::stops, &TestRecord::sweeps,
          &TestRecord::readings, &TestRecord::placements, &TestRecord::wall_readings, &TestRecord::side_readings,
          &TestRecord::dismissals, &TestRecord::log_parts, &TestRecord::lamp_events, &TestRecord::stair_stops,
          &TestRecord::stair_readings, &TestRecord::target_settings, &TestRecord::temperatures, &TestRecord::own_sizes,
          &TestRecord::settlings, &TestRecord::card_rows, &TestRecord::growth_notes, &TestRecord::pictures,
          &TestRecord::verdict_sentences, &TestRecord::spectra>;

/// The types of all kinds of records: those of a test, and those that only the shelves hold.
using AllKinds = TestTables::Types<CropTarget, SavedLineUp, Guest, SensorComparison>;

/// The test's name, or where it has none its fixture's and bench's.
std::string title_of(const TestRecord& record);

/// The record without its readings and logs, which are most of it: what another thread needs beside laid-out sweeps.
TestRecord without_readings(const TestRecord& record);

/// The rows of one kind in a test's record, whatever their type. Refers to the record, which has to outlive it.
class TableRows {
 public:
  const Kind& kind() const { return *kind_; }
  /// There is always exactly one row.
  bool single() const { return single_; }
  std::size_t size() const { return ways_->size(part_); }
  const void* at(std::size_t i) const { return ways_->at(part_, i); }
  void* at(std::size_t i) { return ways_->at(part_, i); }
  /// Adds a row as a new one is, or gives the single one.
  void* add() { return ways_->add(part_); }
  void erase(std::size_t i) { ways_->erase(part_, i); }
  /// Takes all rows away, but a single one.
  void clear() {
    while (!single_ && size() > 0) erase(size() - 1);
  }

 private:
  friend std::vector<TableRows> tables_of(TestRecord& record);
  /// What is done to a part of one type.
  struct Ways {
    std::size_t (*size)(const void* part);
    void* (*at)(void* part, std::size_t i);
    void* (*add)(void* part);
    void (*erase)(void* part, std::size_t i);
  };
  template <typename Part>
  static const Ways* ways_of();

  const Kind* kind_ = nullptr;
  bool single_ = false;
  void* part_ = nullptr;
  const Ways* ways_ = nullptr;
};

/// All rows of a test's record by kind, in the order of kinds().
std::vector<TableRows> tables_of(TestRecord& record);
const std::vector<TableRows> tables_of(const TestRecord& record);

}  // namespace sunbreak::record
