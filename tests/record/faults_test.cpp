#include "record/faults.h"

#include <gtest/gtest.h>

#include <cmath>

#include "record/kinds.h"

using namespace sunbreak;
using namespace sunbreak::record;

namespace {

/// Two sweeps of two by two stations at one height, all read.
TestRecord sound() {
  TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = 1;
  t.test.fixture_id = t.test.bench_id = 1;
  t.test.columns = t.test.rows = 2;
  t.meters = {{1, "quantum", "sensor"}};
  t.test.sensor_id = 1;
  t.rungs = {{1, 1, 0.45}};
  t.stops = {{1, 1, 100}, {2, 1, 50}};
  for (Id sweep = 1; sweep <= 2; ++sweep) {
    t.sweeps.push_back({sweep, 1, 1, sweep, "cells", 2, 2});
    for (int station = 0; station < 4; ++station) {
      const Id id = 4 * (sweep - 1) + station + 1;
      t.readings.push_back({id, sweep, station, 400.0 + station, "typed", "2026-03-14T09:30:00.000Z"});
      t.placements.push_back({id, sweep, station, id, ""});
    }
  }
  return t;
}

std::string told(const TestRecord& t) {
  std::string all;
  for (const Fault& f : faults_of(t)) all += f.words() + "\n";
  return all;
}

}  // namespace

TEST(Faults, ASoundTestHasNone) { EXPECT_EQ(told(sound()), ""); }

/// Every column that has bounds, at them, a little beyond, and at what is no number.
TEST(Faults, EveryNumericColumnIsHeldToItsRange) {
  int columns = 0;
  for (const Kind& kind : kinds())
    for (const Column& c : kind.columns) {
      if ((c.type != Type::Number && c.type != Type::Integer) || !c.refers_to.empty()) continue;
      ++columns;
      EXPECT_TRUE(std::isfinite(c.least) && std::isfinite(c.most)) << kind.name() << "." << c.name << " has no range";
      const double step = c.type == Type::Integer ? 1 : 1e-6 * std::max(1.0, std::abs(c.most));
      EXPECT_FALSE(value_fault(c, c.least)) << c.name;
      EXPECT_FALSE(value_fault(c, c.most)) << c.name;
      for (const double bad : {c.least - step, c.most + step, std::nan(""), double(INFINITY), -double(INFINITY), 1e308})
        EXPECT_TRUE(value_fault(c, bad)) << kind.name() << "." << c.name << " took " << bad;
    }
  EXPECT_GT(columns, 70);
}

TEST(Faults, WordsDatesAndMomentsAreHeldToWhatTheyMayBe) {
  const Kind& reading = kind_of<Reading>();
  EXPECT_TRUE(value_fault(*reading.column("source"), std::string_view("guessed")));
  EXPECT_FALSE(value_fault(*reading.column("source"), std::string_view("live")));
  for (const char* moment :
       {"2026-13-01T00:00:00.000Z", "0026-01-01T00:00:00.000Z", "3026-01-01T00:00:00.000Z", "soon"})
    EXPECT_TRUE(value_fault(*reading.column("taken_at"), std::string_view(moment))) << moment;
  const Column& date = *kind_of<record::Test>().column("tested_on");
  EXPECT_FALSE(value_fault(date, std::string_view("2024-02-29")));
  for (const char* bad : {"2026-02-29", "12/05/2026", "2026-2-3", "2026-00-10", "1026-01-01"})
    EXPECT_TRUE(value_fault(date, std::string_view(bad))) << bad;
}

TEST(Faults, AreToldByTableRowColumnValueAndWhatWasExpected) {
  TestRecord t = sound();
  t.sweeps[1].calibration_factor = -1;
  const auto faults = faults_of(t);
  ASSERT_FALSE(faults.empty());
  EXPECT_EQ(faults[0].words(), "sweep, row 2, column calibration_factor: '-1'; expected 0.0001 to 10");
  EXPECT_EQ(faults[0].sweep_id, 2);
  t.faults = faults;
  EXPECT_EQ(t.apart(1), nullptr) << "the other sweep is none the worse";
  EXPECT_NE(t.apart(2), nullptr);
}

TEST(Faults, RelationsThatDoNotHold) {
  struct Case {
    const char* name;
    void (*harm)(TestRecord&);
    const char* told;
  };
  const Case cases[] = {
      {"two readings of one id", [](TestRecord& t) { t.readings[1].id = 1; }, "reading, row 2, column id: '1'"},
      {"two placements of one station", [](TestRecord& t) { t.placements[1].station = 0; },
       "placement, row 2, column station: '0'"},
      {"a reading of another sweep", [](TestRecord& t) { t.placements[0].reading_id = 5; },
       "placement, row 1, column reading_id: '5'"},
      {"a reading of another station", [](TestRecord& t) { t.placements[0].reading_id = 2; },
       "placement, row 1, column reading_id: '2'"},
      {"a reading that is not there", [](TestRecord& t) { t.placements[0].reading_id = 99; },
       "placement, row 1, column reading_id: '99'"},
      {"a sweep without its rung", [](TestRecord& t) { t.rungs.clear(); }, "sweep, row 1, column rung_id: '1'"},
      {"a sweep without its stop", [](TestRecord& t) { t.stops.pop_back(); }, "sweep, row 2, column stop_id: '2'"},
      {"two sweeps in one place", [](TestRecord& t) { t.sweeps[1].stop_id = 1; }, "sweep, row 2, column stop_id: '1'"},
      {"a station beyond the grid", [](TestRecord& t) { t.placements[3].station = 4; },
       "placement, row 4, column station: '4'"},
      {"no columns", [](TestRecord& t) { t.sweeps[0].columns = 0; }, "sweep, row 1, column grid_kind"},
      {"a margin that leaves nothing",
       [](TestRecord& t) {
         t.sweeps[0].grid_kind = "inset";
         t.sweeps[0].margin_x_m = 0.7;
       },
       "sweep, row 1, column grid_kind"},
      {"spots that are none", [](TestRecord& t) { t.sweeps[0].spots = "[{\"x_m\":1}]"; }, "sweep, row 1, column spots"},
      {"light below the dark", [](TestRecord& t) { t.readings[0].raw = -40; }, "reading, row 1, column raw: '-40'"},
      {"light beyond the sun",
       [](TestRecord& t) {
         t.sweeps[0].calibration_factor = 9.9;
         t.readings[0].raw = 3000;
       },
       "reading, row 1, column raw: '3000'"},
      {"a band upside down", [](TestRecord& t) { t.test.target_low_ppfd = 2000; },
       "test, row 1, column target_low_ppfd"},
      {"a sensor that is not there", [](TestRecord& t) { t.test.sensor_id = 8; }, "test, row 1, column sensor_id: '8'"},
      {"an impossible bench", [](TestRecord& t) { t.bench.width_m = 120; }, "bench, row 1, column width_m: '120'"}};
  for (const Case& c : cases) {
    TestRecord t = sound();
    c.harm(t);
    EXPECT_NE(told(t).find(c.told), std::string::npos) << c.name << ":\n" << told(t);
  }
}

TEST(Faults, EverySweepOfManyFaultsIsNamed) {
  TestRecord t = sound();
  for (Reading& r : t.readings) r.raw = 1e9;
  const auto faults = faults_of(t, 2);
  t.faults = faults;
  EXPECT_NE(t.apart(1), nullptr);
  EXPECT_NE(t.apart(2), nullptr) << "though more than two faults lie before it";
  EXPECT_LE(faults.size(), 4u);
}

TEST(Faults, RowsOfNoSweepAreLeftOut) {
  TestRecord t = sound();
  t.stair_stops = {{1, 1, 100, 322.0}, {2, 1, 50, 1e308}};
  t.temperatures = {{1, 1, "driver", "contact", 5000}, {2, 1, "bar", "contact", 48}};
  t.temperatures[1].taken_at = "yesterday";
  set_apart(t);
  EXPECT_EQ(t.faults.size(), 3u);
  ASSERT_EQ(t.stair_stops.size(), 1u);
  EXPECT_EQ(t.stair_stops[0].id, 1);
  ASSERT_EQ(t.temperatures.size(), 1u) << "a date that is none enters no figure";
  EXPECT_EQ(t.temperatures[0].id, 2);
  EXPECT_EQ(t.apart(1), nullptr);
}

TEST(Faults, WhatTheTestNamesThatWasLeftOutIsNamedNoMore) {
  TestRecord t = sound();
  t.meters = {{1, "lux", "LX-1"}};
  t.test.sensor_id = 1;
  FittedLuxFactor sound_one, harmed;
  sound_one.id = 1, sound_one.meter_id = 1, sound_one.k = 0.0171, sound_one.highest_lux = 40000;
  harmed = sound_one;
  harmed.id = 2, harmed.k = 1e308;
  t.lux_factors = {sound_one, harmed};
  for (const Id named : {1, 2}) {
    TestRecord read = t;
    read.sweeps.clear(), read.readings.clear(), read.placements.clear();
    read.test.lux_factor_id = named;
    set_apart(read);
    ASSERT_EQ(read.faults.size(), 1u);
    EXPECT_EQ(read.faults[0].table + "." + read.faults[0].column, "lux_factor.k");
    ASSERT_EQ(read.lux_factors.size(), 1u);
    EXPECT_EQ(read.test.lux_factor_id, named == 1 ? std::optional<Id>(1) : std::nullopt);
    EXPECT_EQ(read.test.sensor_id, 1);
    EXPECT_TRUE(faults_of(read).empty());
  }
}

TEST(Faults, SaveForBenchAndPlanTheySetOneSweepApartOnly) {
  TestRecord t = sound();
  t.readings[0].raw = 1e9;
  t.faults = faults_of(t);
  EXPECT_NE(t.apart(1), nullptr);
  EXPECT_EQ(t.apart(2), nullptr);
  t = sound();
  t.bench.depth_m = 0.001;
  t.faults = faults_of(t);
  EXPECT_NE(t.apart(1), nullptr);
  EXPECT_NE(t.apart(2), nullptr);
}
