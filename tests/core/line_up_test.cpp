#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <tuple>

#include "core/lineup/comparable.h"
#include "core/lineup/dominance.h"
#include "core/lineup/light_for_money.h"
#include "core/lineup/ranking.h"
#include "core/lineup/way.h"

namespace sunbreak {
namespace {

Standing standing(double value, double own, std::vector<SharedPart> shared = {}, double bias = 0) {
  Standing s;
  s.value = value, s.own_variance = own * own, s.bias = bias, s.shared = std::move(shared);
  return s;
}

/// 3 own and 4 shared make 5; of the difference only what is not alike in the shared part is left.
TEST(StandingTest, WhatTwoShareCancels) {
  const Standing a = standing(100, 3, {{7, 4}}), b = standing(110, 3, {{7, 4}}), c = standing(110, 3, {{8, 4}}),
                 d = standing(110, 3, {{7, 12}});
  EXPECT_DOUBLE_EQ(a.expanded(), 10);
  EXPECT_DOUBLE_EQ(difference(a, b).value, -10);
  EXPECT_DOUBLE_EQ(difference(a, b).expanded, 2 * std::sqrt(18));
  EXPECT_TRUE(difference(a, b).beyond());
  EXPECT_DOUBLE_EQ(difference(a, c).expanded, 2 * std::sqrt(50)) << "another meter's";
  EXPECT_FALSE(difference(a, c).beyond());
  EXPECT_DOUBLE_EQ(difference(a, d).expanded, 2 * std::sqrt(18 + 64)) << "8 of 12 are not alike";
  EXPECT_DOUBLE_EQ(difference(standing(5, 1, {}, 2), standing(5, 1, {}, -1)).expanded, 2 * std::sqrt(2) + 3);
}

TEST(StandingTest, ASlopeCarriesPartsAlong) {
  const Standing light = standing(200, 6, {{1, 8}}), whole = standing(400, 3, {{1, 16}});
  const Standing share = worked_out(0.5, {{1 / 400.0, &light}, {-200 / 400.0 / 400.0, &whole}});
  EXPECT_NEAR(share.own_variance, std::pow(6 / 400.0, 2) + std::pow(3 * 0.5 / 400, 2), 1e-15);
  ASSERT_EQ(share.shared.size(), 1u);
  EXPECT_NEAR(share.shared.front().standard, 0, 1e-15) << "one sensor's calibration is in both";
  const Standing nothing = standing(unread, 0);
  EXPECT_TRUE(std::isnan(worked_out(1, {{1, &light}, {1, &nothing}}).value));
}

/// 100, 98, 90, 89 with u = 2 each: a difference of 5.66 is told.
TEST(RankingTest, RanksAreIntervals) {
  const Ranking r({standing(90, 2), standing(100, 2), standing(89, 2), standing(98, 2)}, Better::More);
  EXPECT_EQ(r.order(), (std::vector{1, 3, 0, 2}));
  EXPECT_EQ(r.rank(1), (RankInterval{1, 2, 4}));
  EXPECT_EQ(r.rank(3), (RankInterval{1, 2, 4}));
  EXPECT_EQ(r.rank(0), (RankInterval{3, 4, 4}));
  EXPECT_EQ(r.rank(2), (RankInterval{3, 4, 4}));
  EXPECT_EQ(r.ties(1), std::vector{3});
  EXPECT_TRUE(r.beats(3, 0));
  EXPECT_FALSE(r.beats(0, 3));
  const Ranking least({standing(90, 2), standing(100, 2), standing(unread, 2)}, Better::Less);
  EXPECT_EQ(least.order(), (std::vector{0, 1}));
  EXPECT_EQ(least.rank(0), (RankInterval{1, 1, 2}));
  EXPECT_EQ(least.rank(2), (RankInterval{})) << "no value, no rank";
}

/// A is tied with B and B with C, but A is not with C: two brackets, and B is 1 to 3.
TEST(RankingTest, TiesNeedNotBeTransitive) {
  const Ranking r({standing(100, 2), standing(96, 2), standing(92, 2)}, Better::More);
  EXPECT_EQ(r.rank(0), (RankInterval{1, 2, 3}));
  EXPECT_EQ(r.rank(1), (RankInterval{1, 3, 3}));
  EXPECT_EQ(r.rank(2), (RankInterval{2, 3, 3}));
  EXPECT_EQ(r.tie_brackets(r.order()), (std::vector<std::pair<int, int>>{{0, 1}, {1, 2}}));
  const Ranking alone({standing(100, 1), standing(90, 1)}, Better::More);
  EXPECT_TRUE(alone.tie_brackets(alone.order()).empty());
}

/// By one meter 100 and 97 are told apart, by two they are not.
TEST(RankingTest, OneMeterTellsMoreThanTwo) {
  const Ranking one({standing(100, 0.5, {{1, 3}}), standing(97, 0.5, {{1, 3}})}, Better::More),
      two({standing(100, 0.5, {{1, 3}}), standing(97, 0.5, {{2, 3}})}, Better::More);
  EXPECT_EQ(one.rank(1), (RankInterval{2, 2, 2}));
  EXPECT_EQ(two.rank(1), (RankInterval{1, 2, 2}));
}

/// Three pairs: of 3.0, 2.3 and 0.7 standard uncertainties. Holm asks the first for p < 0.0455 / 3 (2.43), the second
/// for p < 0.0455 / 2 (2.28).
TEST(RankingTest, HolmGoesFromThePlainestOn) {
  const double u = std::sqrt(2.0);
  const std::vector all{standing(3.0 * u, 1), standing(0.7 * u, 1), standing(0, 1)};
  const Ranking holm(all, Better::More, Sure::AllPairs);
  EXPECT_TRUE(holm.told_apart(0, 2));
  EXPECT_TRUE(holm.told_apart(0, 1));
  EXPECT_FALSE(holm.told_apart(1, 2));
  EXPECT_EQ(holm.rank(0), (RankInterval{1, 1, 3}));
  EXPECT_EQ(holm.rank(1), (RankInterval{2, 3, 3}));
  // Of 2.4 and 2.2: each alone would be told apart, together none is.
  const std::vector close{standing(2.4 * u, 1), standing(0.2 * u, 1), standing(0, 1)};
  EXPECT_EQ(Ranking(close, Better::More).rank(0), (RankInterval{1, 1, 3}));
  EXPECT_EQ(Ranking(close, Better::More, Sure::AllPairs).rank(0), (RankInterval{1, 3, 3}));
}

TEST(RankingTest, WhatMayNotBeComparedIsNeverTold) {
  std::vector<ComparedFacts> facts(3);
  for (ComparedFacts& f : facts) f.grade = Grade::Working, f.height_m = 0.4;
  facts[1].walls = "no walls";
  const Comparability comparable(facts, Needs::All);
  const Ranking r({standing(100, 1), standing(50, 1), standing(10, 1)}, Better::More, Sure::EachPair, &comparable);
  EXPECT_EQ(r.rank(0), (RankInterval{1, 1, 2}));
  EXPECT_EQ(r.rank(1), (RankInterval{1, 1, 1}));
  EXPECT_EQ(r.rank(2), (RankInterval{2, 2, 2}));
  EXPECT_TRUE(r.ties(1).empty()) << "not comparable is no tie";
}

/// Whatever is asked of all pairs at once agrees with each pair asked for itself.
RC_GTEST_PROP(RankingTest, RanksAgreeWithPairs, ()) {
  const int n = *rc::gen::inRange(1, 12);
  std::vector<Standing> all;
  for (int i = 0; i < n; ++i) {
    Standing s = standing(*rc::gen::inRange(0, 60), 1 + *rc::gen::inRange(0, 3), {}, *rc::gen::inRange(-2, 3));
    for (std::uint32_t source = 0; source < 40; ++source)
      if (*rc::gen::inRange(0, 4) == 0) s.shared.push_back({source, 0.5 * *rc::gen::inRange(-4, 8)});
    all.push_back(s);
  }
  const Ranking r(all, Better::More);
  for (int i = 0; i < n; ++i) {
    int beaten_by = 0, beats = 0;
    for (int j = 0; j < n; ++j) {
      if (j == i) continue;
      const bool beyond = difference(all[i], all[j]).beyond();
      beaten_by += beyond && all[j].value > all[i].value, beats += beyond && all[j].value < all[i].value;
    }
    RC_ASSERT(r.rank(i).low == 1 + beaten_by);
    RC_ASSERT(r.rank(i).high == n - beats);
  }
}

struct Fixture {
  double light, even, watts;
};

std::vector<DominanceAxis> axes_of(const std::vector<Fixture>& fixtures) {
  std::vector<DominanceAxis> axes{{{}, Better::More}, {{}, Better::More}, {{}, Better::Less}};
  for (const Fixture& f : fixtures) {
    axes[0].standings.push_back(standing(f.light, 5));
    axes[1].standings.push_back(standing(f.even, 0.01));
    axes[2].standings.push_back(standing(f.watts, 1));
  }
  return axes;
}

TEST(DominanceTest, NowhereWorseAndSomewhereBeyond) {
  const auto axes = axes_of({
      {500, 0.70, 200},   // 0
      {450, 0.70, 200},   // 1: 50 less light, beyond 14; as even, as many watts
      {495, 0.69, 201},   // 2: worse everywhere, nowhere beyond
      {600, 0.60, 300},   // 3: brighter for more watts
      {450, 0.71, 200},   // 4: as 1, but a hair more even than 0: within its ±, but not shown to be worse
      {unread, 0.1, 900}  // 5: its light is not known
  });
  const auto dominated = dominated_by(axes);
  EXPECT_EQ(dominated[0], std::vector<int>{});
  EXPECT_EQ(dominated[1], std::vector<int>{0}) << "4 is as bright and as frugal, and not beyond in evenness";
  EXPECT_EQ(dominated[2], std::vector<int>{});
  EXPECT_EQ(dominated[3], std::vector<int>{});
  EXPECT_EQ(dominated[4], std::vector<int>{});
  EXPECT_EQ(dominated[5], std::vector<int>{});
  EXPECT_EQ(frontier(axes, dominated), (std::vector{0, 2, 3, 4}));
}

TEST(DominanceTest, OnlyAmongThoseThatMayBeCompared) {
  std::vector<ComparedFacts> facts(2);
  facts[0].grade = facts[1].grade = Grade::Benchmark;
  facts[1].sensor = "a spectrometer";
  const Comparability comparable(facts, Needs::All);
  const auto axes = axes_of({{500, 0.7, 200}, {300, 0.5, 300}});
  EXPECT_EQ(dominated_by(axes)[1], std::vector{0});
  EXPECT_TRUE(dominated_by(axes, &comparable)[1].empty());
}

/// 100 W at 0.30 for 12 h a day over 2 years: 876 kWh, 262.80; 200 µmol/s over 8,760 h make 6,307.2 mol.
TEST(LightForMoneyTest, AMoleByHand) {
  const MoneyTerms terms{2, 12, 0.3, 0};
  const Standing watts = standing(100, 1), ppf = standing(200, 4, {{1, 3}});
  EXPECT_DOUBLE_EQ(hours_run(terms), 8760);
  EXPECT_NEAR(moles_of_unit_flux(terms) * 200, 6307.2, 1e-9);
  const Standing cost = cost_of_mole(137.2, watts, ppf, terms);
  EXPECT_NEAR(cost.value, 400 / 6307.2, 1e-12);
  EXPECT_NEAR(cost.own_variance, std::pow(2.628 / 6307.2, 2) + std::pow(cost.value * 4 / 200, 2), 1e-15);
  EXPECT_NEAR(cost.shared.front().standard, -cost.value * 3 / 200, 1e-15);
  EXPECT_NEAR(cost_over_years(137.2, watts, terms).value, 400, 1e-9);
  EXPECT_NEAR(price_of_light(137.2, ppf).value, 0.686, 1e-12);
}

/// Light that loses a tenth in 1,000 h has half of its photons out after ln 2 ÷ −ln 0.9 thousand hours of all there
/// are.
TEST(LightForMoneyTest, DecayIsIntegrated) {
  const MoneyTerms steady{1, 10, 0, 0}, decaying{1, 10, 0, 10};
  EXPECT_NEAR(moles_of_unit_flux(steady), 3650 * 3600e-6, 1e-12);
  EXPECT_NEAR(moles_of_unit_flux(decaying), 3600e-6 * 1000 * (1 - std::pow(0.9, 3.65)) / -std::log(0.9), 1e-12);
}

// What may not be compared, one reason at a time.

ComparedFacts usual() {
  ComparedFacts f;
  f.footprint = {1.2, 1.2};
  f.walls = "reflective walls", f.grid = "12 × 12 cells", f.columns = f.rows = 12;
  f.height_m = 0.45, f.sensor = "a quantum sensor", f.grade = Grade::Benchmark;
  return f;
}

struct UnlikeCase {
  const char* name;
  void (*change)(ComparedFacts&);
  Unlike::What what;
  const char *words, *way;
  Needs also_without;  ///< a need without which the two may be compared
};

const UnlikeCase unlike_cases[] = {
    {"footprint",
     [](ComparedFacts& f) {
       f.footprint = {0.6, 1.2};
     },
     Unlike::Footprints, "footprints of 120 × 120 cm and 60 × 120 cm", "footprint:60x120cm",
     Needs::Sensor | Needs::Height | Needs::Grid},
    {"walls", [](ComparedFacts& f) { f.walls = "no walls"; }, Unlike::Walls, "reflective walls and no walls",
     "open-floor", Needs::Sensor | Needs::Height | Needs::Grid},
    {"height", [](ComparedFacts& f) { f.height_m = 0.3; }, Unlike::Heights, "hung at 45 cm and 30 cm", "height:45cm",
     Needs::Sensor | Needs::Space | Needs::Grid},
    {"rule", [](ComparedFacts& f) { f.height_rule = "its best"; }, Unlike::Heights, "hung at 45 cm and its best",
     "height:45cm", Needs::Sensor | Needs::Space | Needs::Grid},
    {"grid", [](ComparedFacts& f) { f.grid = "6 × 8 cells", f.columns = 6, f.rows = 8; }, Unlike::Grids,
     "grids of 12 × 12 cells and 6 × 8 cells", "grid:6x8", Needs::Mean},
    {"spots", [](ComparedFacts& f) { f.grid = "9 spots", f.columns = f.rows = 0; }, Unlike::Grids,
     "grids of 12 × 12 cells and 9 spots", "", Needs::Mean},
    {"sensor", [](ComparedFacts& f) { f.sensor = "a spectrometer"; }, Unlike::Sensors,
     "read by a quantum sensor and a spectrometer", "", Needs::Space | Needs::Height | Needs::Grid},
    {"grade", [](ComparedFacts& f) { f.grade = Grade::Spot; }, Unlike::Grades,
     "evidence of Benchmark grade and Spot grade, where both need Working grade", "",
     Needs::Space | Needs::Height | Needs::Grid},
    {"simulated", [](ComparedFacts& f) { f.simulated = true; }, Unlike::Simulations,
     "one was measured, the other is simulated", "", Needs::All},
};

class UnlikeTest : public testing::TestWithParam<UnlikeCase> {};

TEST_P(UnlikeTest, IsTheOneReason) {
  const UnlikeCase& c = GetParam();
  const ComparedFacts a = usual();
  ComparedFacts b = a;
  c.change(b);
  const auto why = why_not(a, b, Needs::All, UnitSystem::Metric);
  ASSERT_EQ(why.size(), 1u);
  EXPECT_EQ(why.front().what, c.what);
  EXPECT_EQ(why.front().words, c.words);
  EXPECT_EQ(why_not_words(why), c.words);
  if (*c.way) {
    EXPECT_NE(std::ranges::find(why.front().switches, c.way), why.front().switches.end());
  } else {
    EXPECT_TRUE(why.front().switches.empty()) << "nothing makes them alike";
  }
  const std::vector both{a, b};
  EXPECT_FALSE(Comparability(both, Needs::All).may(0, 1));
  EXPECT_EQ(Comparability(both, c.also_without).may(0, 1), c.what != Unlike::Simulations);
  EXPECT_EQ(why_not(a, b, c.also_without, UnitSystem::Metric).empty(), c.what != Unlike::Simulations);
}

INSTANTIATE_TEST_SUITE_P(EachReason, UnlikeTest, testing::ValuesIn(unlike_cases),
                         [](const auto& tested) { return std::string(tested.param.name); });

TEST(ComparableTest, WithinTheLimitsIsAlike) {
  ComparedFacts a = usual(), b = usual();
  b.footprint = {1.177, 1.2};
  b.height_m = 0.46;
  EXPECT_TRUE(why_not(a, b, Needs::All, UnitSystem::Metric).empty());
  b.footprint = {1.17, 1.2};
  EXPECT_EQ(why_not(a, b, Needs::All, UnitSystem::Metric).size(), 1u);
  a.footprint = {0.6, 1.2}, b.footprint = {1.2, 0.6};
  EXPECT_TRUE(why_not(a, b, Needs::All, UnitSystem::Metric).empty()) << "turned round";
  EXPECT_TRUE(Comparability(std::vector{a, b}, Needs::All).may(0, 1));
}

TEST(ComparableTest, AllReasonsAreTold) {
  ComparedFacts b = usual();
  b.walls = "no walls", b.height_m = 0.3, b.sensor = "";
  EXPECT_EQ(
      why_not_words(why_not(usual(), b, Needs::All, UnitSystem::Imperial)),
      "hung at 17.7 in and 11.8 in; reflective walls and no walls; read by a quantum sensor and a sensor that is not "
      "stated");
}

TEST(WayTest, IsWrittenAsItIsRead) {
  for (const char* text :
       {"as-measured", "equal-watts:300", "equal-center:812.5", "height:45cm", "footprint:90x60cm", "grid:6x8",
        "open-floor", "white-tent", "best:flowering & fruiting", "best:555-925+footprint:60x60cm",
        "equal-watts:300+height:30cm+footprint:90x90cm+grid:6x6+white-tent"}) {
    const auto way = parse_way(text);
    ASSERT_TRUE(way.ok()) << text;
    EXPECT_EQ(way_id(way.value()), text);
  }
  EXPECT_EQ(way_id(parse_way(" Footprint: 3x3ft + grid:6 ").value()), "footprint:91.44x91.44cm+grid:6x6");
  EXPECT_TRUE(parse_way("as-measured").value().as_measured());
  const auto lamp = parse_way("check-lamp:lamp A, 40 cm = 412.5+equal-watts:150");
  ASSERT_TRUE(lamp);
  EXPECT_EQ(lamp.value().check_lamp, "lamp A, 40 cm");
  EXPECT_EQ(parse_way(way_id(lamp.value())).value(), lamp.value());
  for (const auto& [text, lamp_name, target] :
       {std::tuple{"check-lamp:lamp A + shade=400+equal-watts:150", "lamp A + shade", ""},
        {"equal-watts:150+check-lamp:A+B+C=400", "A+B+C", ""},
        {"best:dill + chives+footprint:60x60cm", "", "dill + chives"},
        {"footprint:60x60cm+best:dill + chives", "", "dill + chives"}}) {
    const auto way = parse_way(text);
    ASSERT_TRUE(way) << text;
    EXPECT_EQ(way.value().check_lamp, lamp_name);
    EXPECT_EQ(way.value().target, target);
    EXPECT_EQ(parse_way(way_id(way.value())).value(), way.value());
  }
  for (const char* text : {"check-lamp:lamp A", "check-lamp:=400", "check-lamp:lamp A=0", "check-lamp:A=4+best:400-600",
                           "check-lamp:lamp A+equal-watts:150", "check-lamp:lamp A=400+equal-wats:150"})
    EXPECT_FALSE(parse_way(text)) << text;
}

TEST(WayTest, IsTypedAsItIsShown) {
  const std::pair<const char*, const char*> shown[] = {
      {"as-measured", "as measured"},
      {"equal-watts:300+height:45cm", "equal watts 300 W + height 45 cm"},
      {"equal-center:812.5", "equal center 812.5 µmol/m²/s"},
      {"footprint:90x60cm+grid:6x8", "footprint 90 × 60 cm + grid 6 × 8"},
      {"open-floor", "open floor"},
      {"height:30cm+white-tent", "height 30 cm + white tent"},
      {"best:flowering & fruiting+footprint:60x60cm", "best for flowering & fruiting + footprint 60 × 60 cm"},
      {"check-lamp:lamp A, 40 cm=412.5", "check lamp lamp A, 40 cm = 412.5 µmol/m²/s"}};
  for (const auto& [id, text] : shown) {
    const LineUpWay way = parse_way(id).value();
    EXPECT_EQ(way_text(way, UnitSystem::Metric), text);
    const auto typed = parse_way(text);
    ASSERT_TRUE(typed) << text;
    EXPECT_EQ(way_id(typed.value()), way_id(way));
  }
  EXPECT_EQ(way_text(parse_way("height:45cm+footprint:90x60cm").value(), UnitSystem::Imperial),
            "height 17.7 in + footprint 35.4 × 23.6 in");
  EXPECT_NEAR(*parse_way("Height 17.7 in + open-floor").value().height_m, 0.44958, 1e-9);
  EXPECT_EQ(way_id(parse_way("equal watts: 300+grid 6").value()), "equal-watts:300+grid:6x6");
  for (const char* text :
       {"equal watts 300 V", "openfloor", "white tents", "as measured 3", "grid 6 × 8 cm", "best for "})
    EXPECT_FALSE(parse_way(text)) << text;
}

TEST(WayTest, RefusesWhatIsNone) {
  for (const char* text : {"",
                           "equal-watts",
                           "equal-watts:",
                           "equal-watts:-3",
                           "equal-watts:nan",
                           "equal-watts:1e9",
                           "height:45",
                           "height:0cm",
                           "height:50m",
                           "footprint:90",
                           "grid:1x6",
                           "grid:6x6.5",
                           "grid:x",
                           "best:",
                           "white-tents",
                           "open-floor+",
                           "+",
                           "equal-watts:300+equal-center:800",
                           "best:chard+height:45cm",
                           "best:chard+open-floor",
                           "best:chard+grid:6x6"}) {
    const auto way = parse_way(text);
    ASSERT_FALSE(way.ok()) << text;
    EXPECT_FALSE(way.problem().remedy.empty()) << text;
  }
}

TEST(WayTest, IsDeclaredInWords) {
  EXPECT_EQ(way_words({}, 0.45, UnitSystem::Metric),
            "each at its walked height nearest to 45 cm, at full, as measured");
  EXPECT_EQ(
      way_words(parse_way("equal-watts:150+white-tent+footprint:90x90cm").value(), 0.45, UnitSystem::Imperial),
      "each at its walked height nearest to 17.7 in, dimmed to 150 W at the wall, restated in a white tent of 35.4 × "
      "35.4 in");
  EXPECT_EQ(way_words(parse_way("best:chard").value(), 0.45, UnitSystem::Metric),
            "each at its own best height and setting for chard");
}

}  // namespace
}  // namespace sunbreak
