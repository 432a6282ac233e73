#include "evaluation/recommended_sweep.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include "evaluation/part_read.h"
#include "evaluation/told_figures.h"

namespace sunbreak::evaluation {
namespace {

/// Sweeps of 4 × 4 even stations, each with its light and watts; the target is 400 to 600.
TestRecord even_sweeps(const std::vector<std::pair<double, double>>& sweeps_of) {
  TestRecord b;
  b.test.id = 1;
  b.test.target_name = "leafy";
  b.test.target_low_ppfd = 400, b.test.target_high_ppfd = 600;
  b.test.columns = b.test.rows = 4;
  b.stops = {{1, 1, 100}};
  Id reading = 0;
  for (std::size_t n = 0; n < sweeps_of.size(); ++n) {
    const Id id = static_cast<Id>(n) + 1;
    b.rungs.push_back({id, 1, 0.8 - 0.1 * static_cast<double>(n)});
    Sweep sweep;
    sweep.id = sweep.rung_id = id;
    sweep.test_id = sweep.stop_id = 1;
    sweep.columns = sweep.rows = 4;
    sweep.power_w = sweeps_of[n].second;
    b.sweeps.push_back(sweep);
    for (int i = 0; i < 16; ++i) {
      ++reading;
      b.readings.push_back({reading, id, i, sweeps_of[n].first, "typed", ""});
      b.placements.push_back({reading, id, i, reading, ""});
    }
  }
  return b;
}

RecommendedSweep recommended(const TestRecord& record) {
  static std::shared_ptr<const Evaluation> evaluation;  // what is given out refers to it
  evaluation = evaluate(record);
  return recommended_sweep(*evaluation, read_sweeps(*evaluation), UnitSystem::Metric);
}

}  // namespace

TEST(RecommendedSweep, ServesTheTargetWithTheFewestWatts) {
  const auto r = recommended(even_sweeps({{300, 90}, {500, 120}, {550, 100}, {900, 200}}));
  ASSERT_TRUE(r.sweep);
  EXPECT_EQ(r.sweep->id, 3);
  EXPECT_EQ(r.why,
            "60 cm, 100 %: of all walked settings this one has the most of its area in the band of the target (leafy, "
            "400 to 600 µmol/m²/s), 100 %.");
}

TEST(RecommendedSweep, IsNoneThatWasReadInPartWhereOthersWereReadWhole) {
  TestRecord b = even_sweeps({{300, 90}, {500, 120}});
  std::erase_if(b.placements, [](const Placement& p) { return p.sweep_id == 2 && p.station >= 8; });
  EXPECT_EQ(recommended(b).sweep->id, 1) << "half a sweep is no headline";
  std::erase_if(b.placements, [](const Placement& p) { return p.sweep_id == 1 && p.station >= 8; });
  EXPECT_EQ(recommended(b).sweep->id, 2) << "but where all are";
}

/// What stands in the place of a figure that most of a sweep is missing of is called so.
TEST(ToldFigures, OfASweepReadInPartAreEstimated) {
  TestRecord b = even_sweeps({{500, 120}});
  for (Reading& r : b.readings) r.raw = 500 + 40 * (r.station / 4);
  std::erase_if(b.placements, [](const Placement& p) { return p.station >= 8; });
  const auto evaluation = evaluate(b);
  EXPECT_EQ(part_read_words(*evaluation, 1), "8 of 16 stations read");
  constexpr std::string_view ids[] = {"mean_ppfd", "power_w"};
  const auto told = told_figures(*evaluation, 1, ids, UnitSystem::Metric);
  ASSERT_EQ(told.size(), 2u);
  EXPECT_EQ(told[0].label, "Mean PPFD, estimated");
  EXPECT_EQ(told[1].label, "Wall power") << "watts were read whole";
  const Budget& budget = *evaluation->budget(1);
  EXPECT_EQ(told[0].value, fmt::format("{:.0f}", budget.whole("mean_ppfd")->value));
  EXPECT_NE(part_read_notice(*evaluation, 1, &budget, UnitSystem::Metric).find("mean PPFD " + told[0].value),
            std::string::npos)
      << "the same number wherever it is told";
  EXPECT_EQ(evaluation->evidence(1)->grade, Grade::Spot);
}

TEST(RecommendedSweep, IsTheBrightestWhereNoneIsInTheBand) {
  const auto r = recommended(even_sweeps({{100, 90}, {300, 120}, {200, 20}}));
  ASSERT_TRUE(r.sweep);
  EXPECT_EQ(r.sweep->id, 2);
  EXPECT_TRUE(r.why.find("none has light in the band") != std::string::npos) << r.why;
  EXPECT_FALSE(recommended(even_sweeps({})).sweep) << "nothing was read";
  // Of loose spots no share is known: nothing is said of the band.
  TestRecord spots = even_sweeps({{500, 90}});
  spots.sweeps.front().grid_kind = "spots";
  spots.sweeps.front().columns = spots.sweeps.front().rows = 0;
  spots.sweeps.front().spots = R"([{"name":"one","x_m":0.3,"y_m":0.4},{"name":"two","x_m":0.6,"y_m":0.1}])";
  std::erase_if(spots.readings, [](const auto& reading) { return reading.id > 2; });
  std::erase_if(spots.placements, [](const auto& placed) { return placed.reading_id > 2; });
  EXPECT_EQ(
      recommended(spots).why,
      "80 cm, 100 %: the walked setting with the most light. Between loose stations no share of the area is known.");
}

}  // namespace sunbreak::evaluation
