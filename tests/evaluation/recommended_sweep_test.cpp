#include "evaluation/recommended_sweep.h"

#include <gtest/gtest.h>

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
