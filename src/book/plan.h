#pragma once

#include <optional>
#include <string>
#include <vector>

#include "book/book.h"
#include "core/bench/grid.h"
#include "core/quantity/display.h"
#include "core/result.h"

namespace sunbreak::book {

/// Makes a test's rungs the given heights [m], keeping those that are there already. Refused, and nothing changed,
/// where a height is out of 1 cm … 10 m or of the bench, or where a height to be dropped has readings.
std::optional<Problem> plan_heights(Book& book, const TestRecord& test, const std::vector<double>& heights_m);

/// Makes a test's stops the given dimmer settings [%], by the same rules; from above 0 to 200 %.
std::optional<Problem> plan_stops(Book& book, const TestRecord& test, const std::vector<double>& percents);

/// Makes the plan's grid another. Sweeps that have no readings yet take it too; the others keep the one they were
/// walked on.
std::optional<Problem> plan_grid(Book& book, const TestRecord& test, const Grid& grid);

/// The footprint of a bench is part of every figure measured on it: changing it is refused where other tests on it have
/// readings.
std::optional<Problem> resize_bench(Book& book, const TestRecord& test, const Footprint& footprint);

/// Makes a test one of another fixture, before it has readings. What was known of the light of the one before, its
/// class and the lux factor found under it, goes with it.
void choose_fixture(Edit& edit, const TestRecord& test, Id fixture_id);

/// Takes a meter as the light sensor of a test: of what is read from now on, and of all that was read. Its sweeps and
/// its log are corrected as that sensor's readings; without one they are taken as they stand.
/// `test` is the whole record: of all configurations.
void choose_sensor(Edit& edit, const TestRecord& test, const std::optional<Meter>& sensor);

/// Takes a factor for the lux meter of a test, for what was read and what will be; its sweeps keep a copy of it.
/// Whether it may be used is evaluation/lux_walk.h's to say. `test` is the whole record: of all configurations.
void choose_lux_factor(Edit& edit, const TestRecord& test, const std::optional<FittedLuxFactor>& factor);

/// Adds a configuration to a test, planned as the one that the record is narrowed to. Returns its id; refused where a
/// configuration has that name already, or none is given.
Result<Id> add_configuration(Book& book, const TestRecord& test, const std::string& name);

/// Gives the configuration that the record is narrowed to another name; refused as above.
std::optional<Problem> rename_configuration(Book& book, const TestRecord& test, const std::string& name);

/// A new test on the same bench and meters with the same plan, no readings, and its checklist open again; of the given
/// fixture, or of a new one where its id is 0. Returns the test's id.
Id duplicate_plan(Book& book, Id test_id, Id fixture_id);

/// A new test with a fixture of its own on the bench used last, or on a first one. Returns its id.
Id new_test(Book& book, UnitSystem units = UnitSystem::Metric);

/// The sweep at a rung and a stop, made with the plan's grid and the sensor's correction where there is none.
Sweep sweep_for(Edit& edit, const TestRecord& test, Id rung_id, Id stop_id);

}  // namespace sunbreak::book
