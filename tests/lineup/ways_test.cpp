#include <gtest/gtest.h>

#include <cmath>
#include <set>
#include <string>
#include <utility>

#include "evaluation/lineup/lineup.h"
#include "evaluation/lineup/members_provenance.h"
#include "evaluation/lineup/own_index.h"
#include "evaluation/lineup/shared_sources.h"
#include "evaluation/shared_parts.h"
#include "gathering/entry_bytes.h"
#include "gathering/line_up_request.h"
#include "record/configurations.h"
#include "report/line_up_page.h"

namespace sunbreak {
namespace {

using evaluation::EntryQuestion;
using evaluation::LineUp;
using evaluation::LineUpEntry;
using evaluation::LineUpMember;
using evaluation::LineUpTerms;
using record::Id;
using record::TestRecord;

/// A test whose light is made by a formula: `light` at each place and height at full, and a stair whose light goes with
/// the dial to a power while its watts go with it plainly.
struct MadeTest {
  double width_m = 1.2, depth_m = 1.2;
  int columns = 6, rows = 6;
  std::vector<double> heights_m{0.4};
  double watts = 200, dim_power = 1;
  bool with_stair = true;
  std::string walls = "reflective", name = "made";
  double (*light)(double x_m, double y_m, double height_m) = [](double, double, double) { return 500.0; };

  TestRecord record() const {
    TestRecord r;
    r.test.id = r.fixture.id = r.bench.id = 1;
    r.test.fixture_id = r.test.bench_id = 1;
    r.test.name = r.fixture.name = name;
    r.fixture.emitters = "LED";
    r.fixture.price = 150, r.fixture.currency = "EUR";
    r.bench.name = "bench", r.bench.width_m = width_m, r.bench.depth_m = depth_m, r.bench.height_m = 2;
    r.bench.wall_left = r.bench.wall_right = r.bench.wall_front = r.bench.wall_back = walls;
    r.meters = {{1, "quantum", "Q", "2026-01-10", 1, 0, 2.0, 4000.0, 0.03, 0.02, "", false, 1},
                {2, "wall", "W", "2026-01-10", 1, 0, 1.0, 3680.0, std::nullopt, std::nullopt, "", false, 1}};
    r.test.sensor_id = 1, r.test.wall_meter_id = 2;
    r.test.columns = columns, r.test.rows = rows;
    r.test.opening_probe = false, r.test.reference_every = 0;
    r.stops = {{1, 1, 100}};
    const Layout layout = lay_out({width_m, depth_m}, Grid{GridKind::Cells, columns, rows, 0, 0, {}}).value();
    Id reading = 0;
    for (std::size_t h = 0; h < heights_m.size(); ++h) {
      const Id id = static_cast<Id>(h + 1);
      r.rungs.push_back({id, 1, heights_m[h]});
      record::Sweep sweep{id, 1, id, 1, "cells", columns, rows};
      sweep.power_w = watts;
      r.sweeps.push_back(sweep);
      for (std::size_t i = 0; i < layout.stations.size(); ++i) {
        const Station& s = layout.stations[i];
        r.readings.push_back({++reading, id, static_cast<int>(i), light(s.x_m, s.y_m, heights_m[h]), "typed", ""});
        r.placements.push_back({reading, id, static_cast<int>(i), reading});
      }
    }
    if (!with_stair) return r;
    Id stair = 0;
    for (const double percent : {100.0, 80.0, 60.0, 40.0, 20.0}) {
      const Id id = static_cast<Id>(r.stair_stops.size() + 1);
      r.stair_stops.push_back({id, 1, percent, watts * percent / 100, {}, ""});
      r.stair_readings.push_back({++stair, id, 0, 400 * std::pow(percent / 100, dim_power), "typed"});
    }
    return r;
  }
};

LineUpEntry entry(const TestRecord& record, const std::string& way,
                  EntryQuestion::Take take = EntryQuestion::Take::Sweep) {
  EntryQuestion q;
  q.way = parse_way(way).value();
  q.usual_height_m = 0.4;
  q.band = {300, 600};
  q.take = take;
  return evaluation::entry_of(*evaluation::evaluate(record), q, "");
}

double value(const LineUpEntry& e, const char* figure) {
  return e.figures[static_cast<std::size_t>(evaluation::lineup_figure_index(figure))].value;
}
double expanded(const LineUpEntry& e, const char* figure) {
  const evaluation::EntryFigure& f = e.figures[static_cast<std::size_t>(evaluation::lineup_figure_index(figure))];
  double squares = f.own_variance;
  for (const auto& [source, standard] : f.shared) squares += standard * standard;
  return 2 * std::sqrt(squares) + std::abs(f.bias);
}

double slanted(double x_m, double y_m, double) { return 300 + 200 * x_m + 100 * y_m; }

/// As measured a line-up says what Read says.
TEST(WaysTest, AsMeasuredIsWhatReadHas) {
  MadeTest made;
  made.light = slanted, made.heights_m = {0.6, 0.4};
  const auto evaluation = evaluation::evaluate(made.record());
  const LineUpEntry e = entry(made.record(), "as-measured");
  EXPECT_DOUBLE_EQ(e.height_m, 0.4) << "the height nearest to the usual one";
  const Budget& budget = *evaluation->budget(2);
  for (const char* figure :
       {"mean_ppfd", "lowest_over_mean", "ppf_umol_s", "cv", "power_w", "canopy_efficacy_umol_j"}) {
    EXPECT_DOUBLE_EQ(value(e, figure), budget.values[static_cast<std::size_t>(figure_index(figure))]) << figure;
    EXPECT_NEAR(expanded(e, figure), budget.expanded(figure), 1e-9 * budget.expanded(figure)) << figure;
  }
  const Standing power =
      evaluation::standing_of(e.figures[static_cast<std::size_t>(evaluation::lineup_figure_index("power_w"))]);
  EXPECT_NEAR(difference(power, power).expanded, 2 * std::sqrt(2) * 0.002 * power.value, 1e-9)
      << "of two tests by one meter: watts repeat to their last digit only";
  EXPECT_NEAR(value(e, "heat_btu_h"), 682.4, 0.01);
  EXPECT_TRUE(e.changes.empty());
}

/// 720 µmol/s of 54 W: what cannot be is in no rank, whatever way it is asked in, and no more than a spot check.
TEST(WaysTest, WhatCannotBeIsHeldAgainstNoOther) {
  MadeTest made;
  made.watts = 54;
  for (const char* way : {"as-measured", "equal-watts:40", "height:40cm", "open-floor"}) {
    const LineUpEntry e = entry(made.record(), way);
    ASSERT_TRUE(e.none) << way;
    EXPECT_NE(e.none->seen.find("it cannot be: 13.3 µmol/J"), std::string::npos) << e.none->seen;
    EXPECT_FALSE(e.has_light());
  }
  EXPECT_EQ(evaluation::evaluate(made.record())->grade(), Grade::Spot);
  made.watts = 200;
  EXPECT_FALSE(entry(made.record(), "as-measured").none);
}

/// Of a dome of which the far third was not read a line-up has what all of it would give, and says so.
TEST(WaysTest, ReadInPartIsEstimated) {
  MadeTest made;
  made.columns = made.rows = 9;
  made.light = [](double x_m, double y_m, double) {
    return 700 * std::exp(-0.9 * (std::pow(x_m - 0.6, 2) + std::pow(y_m - 0.6, 2)));
  };
  const LineUpEntry whole = entry(made.record(), "as-measured");
  TestRecord record = made.record();
  std::erase_if(record.placements, [](const record::Placement& p) { return p.station >= 54; });
  const LineUpEntry part = entry(record, "as-measured");
  const auto evaluation = evaluation::evaluate(record);
  const Budget& budget = *evaluation->budget(1);
  const double read = budget.values[static_cast<std::size_t>(figure_index("mean_ppfd"))];
  EXPECT_GT(std::abs(read / value(whole, "mean_ppfd") - 1), 0.02) << "what was read is another mean";
  EXPECT_NEAR(value(part, "mean_ppfd") / value(whole, "mean_ppfd"), 1, 0.01);
  EXPECT_NEAR(value(part, "mean_ppfd"), budget.whole("mean_ppfd")->value, 1e-9);
  EXPECT_NEAR(expanded(part, "mean_ppfd"), budget.whole("mean_ppfd")->expanded, 1e-6);
  EXPECT_EQ(value(part, "power_w"), value(whole, "power_w"));
  ASSERT_EQ(part.changes.size(), 1u);
  EXPECT_EQ(part.changes.front(), "54 of 81 stations read: its figures are estimated for all of them.");
}

/// Two lamps of one kind read by one sensor: ¾ % of its spectral response stays between them; of one lamp nothing does.
TEST(WaysTest, SpectraOfTwoLampsOfAKindStayApart) {
  MadeTest made;
  made.name = "LED bar";
  MadeTest other = made;
  other.name = "LED board";
  const auto spectral = [](const LineUpEntry& a, const LineUpEntry& b) {
    const auto k = static_cast<std::size_t>(evaluation::lineup_figure_index("mean_ppfd"));
    double squares = 0;
    const auto part = [&](const LineUpEntry& e, const std::string& source) {
      for (const auto& [at, standard] : e.figures[k].shared)
        if (e.sources[static_cast<std::size_t>(at)] == source) return standard;
      return 0.0;
    };
    std::set<std::string> sources(a.sources.begin(), a.sources.end());
    sources.insert(b.sources.begin(), b.sources.end());
    for (const std::string& source : sources)
      if (source.starts_with("spectr")) squares += std::pow(part(a, source) - part(b, source), 2);
    return std::sqrt(squares) / 500;
  };
  const LineUpEntry bar = entry(made.record(), "as-measured"), board = entry(other.record(), "as-measured");
  EXPECT_NEAR(spectral(bar, board), 0.0075, 1e-6);
  EXPECT_NEAR(spectral(bar, entry(made.record(), "as-measured")), 0, 1e-12);
}

/// Of a plane 300 + 200 x + 100 y over 120 × 120 cm the middle 60 × 60 cm has the mean in its middle, too, and runs
/// from 300 + 60 + 30 at its corner.
TEST(WaysTest, APartAboutTheMiddle) {
  MadeTest made;
  made.light = slanted;
  const LineUpEntry e = entry(made.record(), "footprint:60x60cm");
  EXPECT_NEAR(value(e, "mean_ppfd"), 480, 1e-9);
  EXPECT_NEAR(value(e, "ppf_umol_s"), 480 * 0.36, 1e-9);
  EXPECT_NEAR(value(e, "lowest_ppfd"), 300 + 200 * (0.3 + 0.075) + 100 * (0.3 + 0.075), 1e-9) << "4 × 4 cells";
  EXPECT_EQ(e.facts.grid, "4 × 4 cells");
  EXPECT_DOUBLE_EQ(e.facts.footprint.width_m, 0.6);
  ASSERT_EQ(e.changes.size(), 1u);
  EXPECT_EQ(entry(made.record(), "footprint:120x120cm").changes.size(), 0u) << "its own is its own";
  const LineUpEntry none = entry(made.record(), "footprint:150x60cm");
  ASSERT_TRUE(none.none);
  EXPECT_EQ(none.none->seen, "120 × 120 cm was measured");
}

/// 6 × 6 cells of a plane make 3 × 3 by fours: the mean stays, the lowest is the mean of four.
TEST(WaysTest, ACommonGrid) {
  MadeTest made;
  made.light = slanted;
  const LineUpEntry e = entry(made.record(), "grid:3x3");
  EXPECT_NEAR(value(e, "mean_ppfd"), 480, 1e-9);
  EXPECT_NEAR(value(e, "lowest_ppfd"), 300 + 200 * 0.2 + 100 * 0.2, 1e-9);
  EXPECT_EQ(e.facts.grid, "3 × 3 cells");
  EXPECT_TRUE(entry(made.record(), "grid:7x7").none) << "readings can be averaged, not invented";
}

/// Watts go with the dial, light with its 0.8th power: at 120 of 200 W 60 % is set, with 0.6 ^ 0.8 of the light.
TEST(WaysTest, EqualWattsByTheStair) {
  MadeTest made;
  made.dim_power = 0.8;
  const LineUpEntry full = entry(made.record(), "as-measured"), e = entry(made.record(), "equal-watts:120");
  EXPECT_NEAR(e.percent, 60, 1e-9);
  EXPECT_NEAR(*e.power_w, 120, 1e-9);
  EXPECT_NEAR(value(e, "mean_ppfd"), 500 * std::pow(0.6, 0.8), 1e-9);
  EXPECT_NEAR(value(e, "lowest_over_mean"), value(full, "lowest_over_mean"), 1e-12);
  EXPECT_NEAR(value(e, "canopy_efficacy_umol_j"), 500 * std::pow(0.6, 0.8) * 1.44 / 120, 1e-9);
  // The wall meter errs by 1 %, which is 0.8 % of the light there.
  EXPECT_GT(expanded(e, "mean_ppfd") / value(e, "mean_ppfd"), expanded(full, "mean_ppfd") / value(full, "mean_ppfd"));
  EXPECT_NEAR(value(entry(made.record(), "equal-watts:90"), "mean_ppfd"), 500 * std::pow(0.45, 0.8), 1.5)
      << "between two steps";
  EXPECT_EQ(entry(made.record(), "equal-watts:250").none->seen, "it has 200 W at most");
  EXPECT_EQ(entry(made.record(), "equal-watts:30").none->seen, "its light is known down to 40 W");
  made.with_stair = false;
  EXPECT_TRUE(entry(made.record(), "equal-watts:120").none);
  EXPECT_FALSE(entry(made.record(), "equal-watts:200").none) << "what it draws anyway";
}

TEST(WaysTest, EqualCenterByTheStair) {
  MadeTest made;
  const LineUpEntry e = entry(made.record(), "equal-center:250");
  EXPECT_NEAR(value(e, "mean_ppfd"), 250, 1e-9);
  EXPECT_NEAR(*e.power_w, 100, 0.5);
  EXPECT_TRUE(entry(made.record(), "equal-center:600").none);
}

/// A height that was walked is taken as it was walked; another is predicted, and one far off refused.
TEST(WaysTest, EqualHeight) {
  MadeTest made;
  made.heights_m = {0.6, 0.4, 0.3};
  made.light = [](double x, double y, double h) {
    const double r2 = (x - 0.6) * (x - 0.6) + (y - 0.6) * (y - 0.6);
    return 400 * h * h / std::pow(h * h + r2, 2);
  };
  made.walls = "open";
  const LineUpEntry walked = entry(made.record(), "height:60cm"), between = entry(made.record(), "height:50cm");
  EXPECT_TRUE(walked.changes.empty());
  ASSERT_FALSE(between.none) << between.none->sentence();
  EXPECT_LT(value(between, "mean_ppfd"), value(entry(made.record(), "height:40cm"), "mean_ppfd"));
  EXPECT_GT(value(between, "mean_ppfd"), value(walked, "mean_ppfd"));
  EXPECT_EQ(between.changes.size(), 1u);
  EXPECT_TRUE(entry(made.record(), "height:120cm").none);
}

/// A small lamp of Lambert's kind, walked without walls: restated on an open floor it gives what its formula gives at
/// the cells there, at a height that nobody walked and on another footprint.
TEST(WaysTest, RestatedOnAnOpenFloor) {
  MadeTest made;
  made.columns = made.rows = 8;
  made.heights_m = {0.7, 0.55, 0.4, 0.3};
  made.walls = "open";
  const auto lamp = [](double x, double y, double h) {
    const double r2 = (x - 0.6) * (x - 0.6) + (y - 0.6) * (y - 0.6);
    return 150 * h * h / std::pow(h * h + r2, 2);
  };
  made.light = lamp;
  TestRecord record = made.record();
  record.fixture.depth_m = record.fixture.width_m = 0.05;
  const LineUpEntry e = entry(record, "open-floor+footprint:80x80cm+height:50cm");
  ASSERT_FALSE(e.none) << e.none->sentence();
  const Layout cells = lay_out(e.footprint, e.grid).value();
  double mean = 0, lowest = INFINITY;
  for (const Station& s : cells.stations) {
    const double ppfd = lamp(s.x_m + 0.2, s.y_m + 0.2, 0.5);
    mean += ppfd / static_cast<double>(cells.stations.size()), lowest = std::min(lowest, ppfd);
  }
  EXPECT_NEAR(e.footprint.width_m, 0.8, 1e-9);
  EXPECT_NEAR(value(e, "mean_ppfd"), mean, 0.005 * mean);
  EXPECT_NEAR(value(e, "mean_ppfd"), mean, expanded(e, "mean_ppfd"));
  EXPECT_NEAR(value(e, "lowest_over_mean"), lowest / mean, expanded(e, "lowest_over_mean"));
  EXPECT_EQ(e.facts.walls, "open floor");
  EXPECT_DOUBLE_EQ(*e.power_w, 200) << "watts are as they were read";
  EXPECT_NEAR(value(e, "canopy_efficacy_umol_j"), value(e, "mean_ppfd") * 0.64 / 200, 1e-9);
}

/// 500 everywhere at any height: for 300 to 600 it is dimmed as far as is still sure, with watts and light of that
/// step.
TEST(WaysTest, EachAtItsBest) {
  MadeTest made;
  made.heights_m = {0.5, 0.4};
  EntryQuestion q;
  q.way = parse_way("best:300-600").value();
  q.band = {300, 600};
  q.rule = parse_serving_rule("every").value();
  const LineUpEntry e = evaluation::entry_of(*evaluation::evaluate(made.record()), q, "");
  ASSERT_FALSE(e.none) << e.none->sentence();
  EXPECT_GE(e.percent, 60) << "less is under 300";
  EXPECT_LT(e.percent, 65) << "more is wasted";
  EXPECT_NEAR(*e.power_w, 2 * e.percent, 0.02 * e.percent);
  EXPECT_NEAR(value(e, "mean_ppfd"), 5 * e.percent, 0.02 * 5 * e.percent);
  EXPECT_NEAR(value(e, "canopy_efficacy_umol_j"), 500 * 1.44 / 200, 0.04);
  EXPECT_EQ(e.facts.height_rule.empty(), false);
}

TEST(WaysTest, ThoseThatMayBeHeldAgainstNobodyForOneReasonStandUnderOneHeading) {
  const std::pair<Grade, const char*> made_as[] = {{Grade::Spot, "reflective"},    {Grade::Working, "reflective"},
                                                   {Grade::Spot, "reflective"},    {Grade::Working, "white"},
                                                   {Grade::Working, "reflective"}, {Grade::Spot, "reflective"}};
  std::vector<LineUpMember> members;
  for (const auto& [grade, walls] : made_as) {
    MadeTest made;
    made.walls = walls;
    auto e = std::make_shared<LineUpEntry>(entry(made.record(), "as-measured"));
    e->facts.grade = grade;
    members.push_back({evaluation::entrant_of(made.record()), e});
  }
  LineUpTerms terms;
  terms.figure = "mean_ppfd";
  const LineUp lineup(members, terms);
  EXPECT_EQ(lineup.groups().size(), 5u);
  const std::vector<evaluation::LineUpBlock> blocks = lineup.blocks();
  ASSERT_EQ(blocks.size(), 3u);
  EXPECT_EQ(blocks[0].heading, "");
  EXPECT_EQ(blocks[0].members, (std::vector{1, 4}));
  const std::size_t graded = blocks[1].members.size() == 1 ? 2 : 1;
  EXPECT_EQ(blocks[graded].heading,
            "Not to be held against those above, nor against each other: evidence of Working grade and Spot grade, "
            "where both need Working grade.");
  EXPECT_EQ(blocks[graded].members, (std::vector{0, 2, 5}));
  EXPECT_EQ(blocks[3 - graded].heading, "Not to be held against those above: reflective walls and white walls.");
  EXPECT_EQ(blocks[3 - graded].members, (std::vector{3}));
}

TEST(WaysTest, AnIndexOfOnesOwn) {
  MadeTest bright, dim;
  bright.light = [](double, double, double) { return 500.0; };
  dim.light = [](double, double, double) { return 400.0; };
  std::vector<LineUpMember> members;
  for (const MadeTest* made : {&bright, &dim})
    members.push_back(
        {evaluation::entrant_of(made->record()), std::make_shared<LineUpEntry>(entry(made->record(), "as-measured"))});
  for (LineUpMember& m : members) std::const_pointer_cast<LineUpEntry>(m.entry)->facts.grade = Grade::Working;
  LineUpTerms terms;
  terms.figure = "index:mean_ppfd=3,power_w";
  const LineUp lineup(members, terms);
  const auto& s = lineup.ranking().standings();
  // 1.25 times the light with three of four weights, the same watts: 1.25^0.75 between them, 100 in the middle.
  EXPECT_NEAR(s[0].value, 100 * std::pow(1.25, 0.375), 1e-9);
  EXPECT_NEAR(s[1].value, 100 / std::pow(1.25, 0.375), 1e-9);
  const Standing light = lineup.standing("mean_ppfd", 0), watts = lineup.standing("power_w", 0);
  EXPECT_NEAR(
      std::sqrt(s[0].variance()) / s[0].value,
      std::hypot(0.75 * std::sqrt(light.variance()) / light.value, 0.25 * std::sqrt(watts.variance()) / watts.value),
      1e-12);
  EXPECT_EQ(lineup.ranking().rank(0), (RankInterval{1, 1, 2})) << "one sensor read both";
  EXPECT_EQ(evaluation::OwnIndex::parse(terms.figure).value().words(), "3 × mean PPFD, 1 × less wall power");
  EXPECT_EQ(evaluation::OwnIndex::parse(terms.figure).value().id(), "index:mean_ppfd=3,power_w=1");
}

TEST(WaysTest, AnIndexThatIsNone) {
  for (const char* text : {"index:", "index:light", "index:mean_ppfd=", "index:mean_ppfd=-1", "index:mean_ppfd=0",
                           "index:mean_ppfd=nan", "index:mean_ppfd=1e9", "index:mean_ppfd,mean_ppfd", "index:,"}) {
    const auto index = evaluation::OwnIndex::parse(text);
    ASSERT_FALSE(index.ok()) << text;
    EXPECT_FALSE(index.problem().remedy.empty()) << text;
  }
}

TEST(WaysTest, WhatAFigureTakesBesideIsToldWhereItIsNotThere) {
  MadeTest made;
  const LineUpEntry e = entry(made.record(), "as-measured", EntryQuestion::Take::WholeLight);
  EXPECT_TRUE(std::isnan(value(e, "utilization")));
  ASSERT_FALSE(e.lacks.empty()) << "light that is the same everywhere comes from no fixture";
  const LineUpEntry banded = entry(made.record(), "as-measured", EntryQuestion::Take::Band);
  EXPECT_DOUBLE_EQ(value(banded, "coverage"), 1) << "all 500 in 300 to 600";
}

TEST(WaysTest, KeptEntriesAreTheSameAgain) {
  MadeTest made;
  made.light = slanted;
  for (const char* way : {"as-measured", "equal-watts:120", "equal-watts:900", "footprint:60x60cm+grid:3x3"}) {
    const LineUpEntry e = entry(made.record(), way);
    const std::string bytes = gathering::bytes_of(e);
    const auto back = gathering::entry_from(bytes);
    ASSERT_TRUE(back);
    EXPECT_EQ(gathering::bytes_of(*back), bytes);
    EXPECT_EQ(back->changes, e.changes);
    for (std::size_t cut = 0; cut < bytes.size(); cut += 97)
      EXPECT_FALSE(gathering::entry_from(std::string_view(bytes).substr(0, cut))) << "half a file is no entry";
  }
}

/// What the bars do not show: of what two share little is left in their difference.
TEST(WaysTest, OverlappingBarsAreToldApartByWhatCancels) {
  MadeTest made;
  const TestRecord plain = made.record();
  TestRecord brighter = plain;
  for (record::Reading& r : brighter.readings) r.raw *= 1.04;
  EntryQuestion q;
  q.usual_height_m = 0.4;
  std::vector<LineUpMember> members;
  for (const auto& [record, owner] :
       {std::pair{&plain, ""}, {&std::as_const(brighter), ""}, {&std::as_const(brighter), "guest Ferry Lane"}}) {
    const auto evaluation = evaluation::evaluate(*record);
    const auto entry = std::make_shared<LineUpEntry>(evaluation::entry_of(*evaluation, q, owner));
    entry->facts.grade = Grade::Working;
    members.push_back({evaluation::entrant_of(*record), entry});
  }
  members[0].entrant.title = "first", members[1].entrant.title = "second", members[2].entrant.title = "guest";
  members[1].entrant.simulated = true;
  LineUpTerms terms;
  terms.figure = "mean_ppfd";
  const LineUp lineup(members, terms);
  const auto s = lineup.standings("mean_ppfd");
  ASSERT_LT(s[1].value - s[0].value, s[0].expanded()) << "each mean lies in the other's bar";
  const std::string apart = beside_words(lineup, 0, 1, UnitSystem::Metric);
  EXPECT_TRUE(apart.starts_with("Beside second: −")) << apart;
  EXPECT_NE(apart.find("told apart though the bars overlap: what both share (the sensor's calibration"),
            std::string::npos)
      << apart;
  EXPECT_TRUE(beside_words(lineup, 1, 0, UnitSystem::Metric).starts_with("Beside first: +"));
  EXPECT_TRUE(beside_words(lineup, 0, 2, UnitSystem::Metric).ends_with(" µmol/m²/s, not told apart."))
      << "another lab's sensor: " << beside_words(lineup, 0, 2, UnitSystem::Metric);
  // What was computed says so, in the line-up and on all that is published of it.
  const std::string words = provenance_words(lineup);
  EXPECT_EQ(words,
            "Of these tests the readings were computed by a simulated bench, not measured: second. The others were "
            "measured.");
  EXPECT_EQ(provenance_count_words(lineup), "1 of 3 computed by a simulated bench, not measured");
  EXPECT_NE(report::line_up_page(lineup, "three", "", UnitSystem::Metric).find(words), std::string::npos);
  for (LineUpMember& m : members) m.entrant.simulated = false;
  const LineUp measured(members, terms);
  EXPECT_EQ(provenance_words(measured), "");
  EXPECT_EQ(report::line_up_page(measured, "three", "", UnitSystem::Metric).find("simulated"), std::string::npos);
}

/// Two tests by one sensor and one by another that is called the same in another lab.
TEST(WaysTest, MetersOfAnotherLabAreOthers) {
  MadeTest made;
  EntryQuestion q;
  q.usual_height_m = 0.4;
  const auto evaluation = evaluation::evaluate(made.record());
  std::vector<LineUpMember> members;
  for (const char* owner : {"", "", "guest Ferry Lane"})
    members.push_back({evaluation::entrant_of(made.record()),
                       std::make_shared<LineUpEntry>(evaluation::entry_of(*evaluation, q, owner))});
  for (LineUpMember& m : members) std::const_pointer_cast<LineUpEntry>(m.entry)->facts.grade = Grade::Working;
  LineUpTerms terms;
  terms.figure = "mean_ppfd";
  const LineUp lineup(members, terms);
  const auto s = lineup.standings("mean_ppfd");
  EXPECT_LT(difference(s[0], s[1]).expanded, 0.5 * difference(s[0], s[2]).expanded);
  EXPECT_EQ(lineup.ranking().rank(0), (RankInterval{1, 3, 3}));
  ASSERT_FALSE(pair_sentences(lineup, 0, 1, UnitSystem::Metric).empty());
  EXPECT_EQ(pair_sentences(lineup, 0, 1, UnitSystem::Metric).front().words.substr(0, 36),
            "Mean PPFD: not told apart; they diff");
}

TEST(WaysTest, MoneyNeedsAPriceInTheLineUpsMoney) {
  MadeTest made;
  TestRecord pounds = made.record(), unpriced = made.record();
  pounds.fixture.currency = "GBP";
  unpriced.fixture.price.reset();
  std::vector<LineUpMember> members;
  for (const TestRecord& r : {made.record(), pounds, unpriced})
    members.push_back({evaluation::entrant_of(r), std::make_shared<LineUpEntry>(entry(r, "as-measured"))});
  LineUpTerms terms;
  terms.figure = "price_per_umol_s";
  const LineUp lineup(members, terms);
  EXPECT_NEAR(lineup.ranking().standings()[0].value, 150 / (500 * 1.44), 1e-12);
  EXPECT_EQ(lineup.why_none(1), "its price is in GBP, the line-up's money is EUR");
  EXPECT_EQ(lineup.why_none(2), "its price is not on record");
}

/// Sources of error, by what is the same.
TEST(WaysTest, LightOfOneKindErrsAlike) {
  record::Fixture f;
  f.kind = "six LED bars";
  EXPECT_EQ(evaluation::kind_of_light(f), "LED");
  f.kind = "fluorescent tubes";
  EXPECT_EQ(evaluation::kind_of_light(f), "fluorescent");
  f.kind = "assembled lamp, titled";
  EXPECT_EQ(evaluation::kind_of_light(f), "") << "words, not letters";
}

}  // namespace
}  // namespace sunbreak
