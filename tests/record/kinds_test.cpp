#include "record/kinds.h"

#include <gtest/gtest.h>

#include <set>

#include "record/renumber.h"

using namespace sunbreak::record;

TEST(Kinds, EachStandsOnceAndAfterThoseItRefersTo) {
  std::set<std::string> seen;
  for (const Kind& kind : kinds()) {
    for (const Column& c : kind.columns) {
      EXPECT_TRUE(c.refers_to.empty() || seen.contains(c.refers_to)) << kind.name() << "." << c.name;
    }
    EXPECT_TRUE(seen.emplace(kind.name()).second) << kind.name();
    EXPECT_EQ(kind_named(kind.name()), &kind);
    std::set<std::string> columns;
    for (const Column& c : kind.columns) {
      EXPECT_TRUE(columns.insert(c.name).second) << kind.name() << "." << c.name;
      EXPECT_FALSE(c.meaning.empty());
      EXPECT_GE(c.since, 1);
    }
  }
  EXPECT_EQ(kind_named("nothing"), nullptr);
}

TEST(Kinds, WhatANewRecordHoldsIsInItsOwnRange) {
  TestRecord fresh;
  for (TableRows& rows : tables_of(fresh)) {
    void* row = rows.add();
    for (const Column& c : rows.kind().columns) {
      const Value v = c.get(row);
      if (const auto* number = std::get_if<double>(&v)) {
        EXPECT_GE(*number, c.least) << rows.kind().name() << "." << c.name;
        EXPECT_LE(*number, c.most) << rows.kind().name() << "." << c.name;
      }
      const auto* text = std::get_if<std::string_view>(&v);
      EXPECT_TRUE(!text || text->empty() || c.words.empty() ||
                  std::find(c.words.begin(), c.words.end(), *text) != c.words.end())
          << c.name << ": " << *text;
    }
  }
}

TEST(Kinds, AColumnGivesBackWhatItTakesAndRefusesOtherTypes) {
  sunbreak::record::Test test;
  const Kind& kind = kind_of<sunbreak::record::Test>();
  EXPECT_TRUE(kind.column("columns")->set(&test, std::int64_t{7}));
  EXPECT_EQ(test.columns, 7);
  EXPECT_FALSE(kind.column("columns")->set(&test, std::int64_t{1} << 40)) << "no int";
  EXPECT_FALSE(kind.column("columns")->set(&test, std::string_view("7")));
  EXPECT_EQ(test.columns, 7);
  EXPECT_TRUE(kind.column("mains_v")->set(&test, std::int64_t{230})) << "a whole number is a number";
  EXPECT_EQ(test.mains_v, 230);
  EXPECT_TRUE(kind.column("mains_v")->set(&test, Value{}));
  EXPECT_EQ(test.mains_v, std::nullopt);
  EXPECT_FALSE(kind.column("photoperiod_h")->set(&test, Value{})) << "never not stated";
  EXPECT_FALSE(kind.column("simulated")->set(&test, std::int64_t{2}));
  test.name = "first";
  EXPECT_EQ(std::get<std::string_view>(kind.column("name")->get(&test)), "first");
}

namespace {

TestRecord small_record() {
  TestRecord r;
  r.fixture.id = 40;
  r.bench.id = 41;
  r.test.id = 50;
  r.test.fixture_id = 40;
  r.test.bench_id = 41;
  r.test.sensor_id = 44;
  r.meters.emplace_back().id = 44;
  r.rungs.push_back({60, 50, 0.3});
  r.stops.push_back({61, 50, 100});
  Sweep sweep;
  sweep.id = 70, sweep.test_id = 50, sweep.rung_id = 60, sweep.stop_id = 61;
  r.sweeps.push_back(sweep);
  r.readings.push_back({80, 70, 3, 512, "typed", "", 1, {}});
  r.placements.push_back({90, 70, 3, 80, ""});
  r.placements.push_back({91, 70, 4, std::nullopt, "behind the pole"});
  return r;
}

}  // namespace

TEST(Renumber, WhatReferredToARowStillDoes) {
  const TestRecord plain = with_plain_ids(small_record());
  EXPECT_EQ(plain.test.id, 1);
  EXPECT_EQ(plain.test.sensor_id, plain.meters[0].id);
  EXPECT_EQ(plain.sweeps[0].rung_id, plain.rungs[0].id);
  EXPECT_EQ(plain.placements[0].reading_id, plain.readings[0].id);
  EXPECT_EQ(plain.placements[1].reading_id, std::nullopt);
  EXPECT_EQ(plain.placements[1].id, 2);
  EXPECT_EQ(with_plain_ids(plain), plain);
}

TEST(Renumber, ARowThatIsNotThereOrThereTwiceIsNamed) {
  TestRecord lost = small_record();
  lost.placements[0].reading_id = 99;
  try {
    with_plain_ids(lost);
    ADD_FAILURE() << "taken";
  } catch (const std::runtime_error& e) {
    EXPECT_STREQ(e.what(), "placement, row 1: reading_id names reading 99, which is not there");
  }
  TestRecord twice = small_record();
  twice.readings.push_back(twice.readings[0]);
  EXPECT_THROW(with_plain_ids(twice), std::runtime_error);
}

TEST(WithoutReadings, KeepsAllElse) {
  TestRecord r = small_record();
  r.dismissals.emplace_back().test_id = 50;
  const TestRecord rest = without_readings(r);
  EXPECT_TRUE(rest.readings.empty());
  EXPECT_TRUE(rest.placements.empty());
  EXPECT_EQ(rest.dismissals, r.dismissals);
  EXPECT_EQ(rest.sweeps, r.sweeps);
}
