#include "record/fact_sheet.h"

#include <gtest/gtest.h>

#include <set>

#include "record/configurations.h"
#include "record/faults.h"

using namespace sunbreak;
using namespace sunbreak::record;

TEST(FactSheet, EveryKindOfFactTakesWhatItIsForAndNothingElse) {
  std::set<std::string_view> names;
  for (const FactKind& kind : fact_kinds()) {
    EXPECT_TRUE(names.insert(kind.name).second) << kind.name;
    BoxFact fact{0, 1, std::string(kind.name), "stated"};
    const bool number =
        kind.holds == FactKind::Number || kind.holds == FactKind::Length || kind.holds == FactKind::Count;
    EXPECT_TRUE(fact_fault(fact)) << kind.name << ": an empty one is no fact";
    if (number) {
      fact.value = kind.holds == FactKind::Count ? std::max(1.0, kind.least) : (kind.least + kind.most) / 2;
      EXPECT_FALSE(fact_fault(fact)) << kind.name;
      for (const double outside : {kind.most * 2 + 1, kind.least - 1, double(NAN)}) {
        fact.value = outside;
        EXPECT_TRUE(fact_fault(fact)) << kind.name << " " << outside;
      }
      fact.value.reset();
      fact.words = "much";
      EXPECT_TRUE(fact_fault(fact)) << kind.name;
    } else {
      fact.words = kind.holds == FactKind::Choice           ? std::string(kind.choices.front())
                   : kind.holds == FactKind::Day            ? "2026-02-28"
                   : kind.holds == FactKind::ProtectionCode ? "IP65"
                                                            : "some words";
      EXPECT_FALSE(fact_fault(fact)) << kind.name;
      if (kind.holds != FactKind::Words) {
        fact.words = "2026-02-30";
        EXPECT_TRUE(fact_fault(fact)) << kind.name;
      }
      fact.value = 3;
      EXPECT_TRUE(fact_fault(fact)) << kind.name << ": words and a number";
    }
  }
  EXPECT_TRUE(fact_fault({0, 1, "a fact that there is none of", "stated", {}, "x"}));
}

TEST(FactSheet, ProtectionCodesByTheStandard) {
  for (const char* code : {"IP65", "IP67", "IPX4", "IP6X", "IP20", "IP69K", "IP23CH", "IP54S"})
    EXPECT_TRUE(is_protection_code(code)) << code;
  for (const char* code : {"", "IP", "IP6", "65", "IP75", "IP6A", "IP65K", "ip65", "IP65XYZ", "IP 65"})
    EXPECT_FALSE(is_protection_code(code)) << code;
  EXPECT_EQ(protection_words("IP65"), "dust: dust tight; water: jets of water");
  EXPECT_EQ(protection_words("IPX4"), "dust: not tested; water: splashes from all sides");
  EXPECT_EQ(protection_words("IP99"), "");
}

TEST(FactSheet, WhatAFixtureCosts) {
  Fixture f;
  EXPECT_FALSE(cost_of(f));
  f.price = 400;
  EXPECT_DOUBLE_EQ(*cost_of(f), 400);
  f.discount_pct = 10;
  f.shipping = 25;
  EXPECT_DOUBLE_EQ(*cost_of(f), 385) << "360 and 25";
}

TEST(FactSheet, ImpossibleFactsAreToldByTheirPlaceAndLeftOut) {
  TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = t.test.fixture_id = t.test.bench_id = 1;
  t.box_facts = {{1, 1, "weight", "stated", 6.0, ""},
                 {2, 1, "weight", "stated", 7.0, ""},
                 {3, 1, "ip_code", "stated", {}, "waterproof"}};
  const auto faults = faults_of(t);
  ASSERT_EQ(faults.size(), 2u);
  EXPECT_NE(faults[0].words().find("box_fact, row 2"), std::string::npos) << faults[0].words();
  EXPECT_NE(faults[1].words().find("waterproof"), std::string::npos) << faults[1].words();
  set_apart(t);
  ASSERT_EQ(t.box_facts.size(), 1u);
  EXPECT_EQ(t.box_facts[0].value, 6.0);
}

namespace {

/// A test as it comes and with other tubes: a height, a setting and a sweep of a reading each, and things of both
/// kinds.
TestRecord two_states() {
  TestRecord t;
  t.fixture.id = t.bench.id = t.test.id = 1;
  t.configurations = {{7, 1, "new tubes", ""}};
  t.rungs = {{1, 1, 0.6}, {2, 1, 0.5, false, 7}};
  t.stops = {{1, 1, 100}, {2, 1, 100, false, 7}};
  t.sweeps = {{1, 1, 1, 1}, {2, 1, 2, 2}};
  t.readings = {{1, 1, 0, 400, "typed", ""}, {2, 2, 0, 480, "typed", ""}};
  t.placements = {{1, 1, 0, 1, ""}, {2, 2, 0, 2, ""}};
  t.lamp_events = {{1, 1, "on", 100, ""}, {2, 1, "on", 100, "", 7}};
  t.temperatures = {{1, 1, "driver"}, {2, 1, "driver"}};
  t.temperatures[1].configuration_id = 7;
  t.dismissals = {{1, 1, {}, "a", "", "", "", ""}, {2, 1, {}, "b", "", "", "", "", 7}, {3, 1, 2, "c", "", "", "", ""}};
  t.pictures = {{1, 1}, {2, 1, 2}, {3, 1, {}, 2}};
  return t;
}

}  // namespace

TEST(Configurations, EachHasItsOwnAndSharesWhatIsOfAll) {
  const TestRecord whole = two_states();
  EXPECT_EQ(configurations_of(whole), (std::vector<Id>{0, 7}));
  const TestRecord plain = of_configuration(whole, 0), tubes = of_configuration(whole, 7);
  EXPECT_EQ(configuration_name(plain, plain.configuration_id), "as it comes");
  EXPECT_EQ(configuration_name(tubes, tubes.configuration_id), "new tubes");
  for (const auto& [state, id, rules, pictures] :
       {std::tuple{plain, Id{1}, "a", 1u}, std::tuple{tubes, Id{2}, "bc", 3u}}) {
    ASSERT_EQ(state.rungs.size(), 1u);
    EXPECT_EQ(state.rungs[0].id, id);
    EXPECT_EQ(state.stops[0].id, id);
    ASSERT_EQ(state.sweeps.size(), 1u);
    EXPECT_EQ(state.sweeps[0].id, id);
    EXPECT_EQ(state.readings.size() + state.placements.size(), 2u);
    EXPECT_EQ(state.lamp_events.size(), 1u);
    EXPECT_EQ(state.temperatures[0].id, id);
    std::string found;
    for (const Dismissal& d : state.dismissals) found += d.rule;
    EXPECT_EQ(found, rules);
    EXPECT_EQ(state.pictures.size(), pictures) << "those of the test are of both";
  }
  EXPECT_EQ(configuration_of(plain), std::nullopt);
  EXPECT_EQ(configuration_of(tubes), Id{7});
}

TEST(Configurations, ASweepOfTwoOfThemIsOfNone) {
  TestRecord t = two_states();
  t.test.fixture_id = t.test.bench_id = 1;
  t.sweeps.push_back({3, 1, 1, 2});
  t.sweeps.back().columns = t.sweeps.back().rows = 4;
  const auto faults = faults_of(t);
  EXPECT_TRUE(std::any_of(faults.begin(), faults.end(),
                          [](const Fault& f) { return f.table == "sweep" && f.row == 3 && f.column == "stop_id"; }));
  for (const Id id : {Id{0}, Id{7}})
    for (const Sweep& s : of_configuration(t, id).sweeps) EXPECT_NE(s.id, 3);
}

TEST(Configurations, OneThatIsNotThereIsTheFixtureAsItComes) {
  TestRecord whole = two_states();
  whole.test.as_it_comes = "old tubes";
  const TestRecord part = of_configuration(whole, 99);
  EXPECT_EQ(part.configuration_id, 0);
  EXPECT_EQ(part.sweeps.size(), 1u);
  EXPECT_EQ(configuration_name(part, 0), "old tubes");
  TestRecord alone = of_configuration(whole, 0);
  alone.configurations.clear();
  EXPECT_EQ(of_configuration(alone, 0), alone) << "with one there is nothing to narrow";
}
