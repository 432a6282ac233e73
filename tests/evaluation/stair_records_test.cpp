#include "evaluation/stair_records.h"

#include <gtest/gtest.h>

#include "exchange/tables/header_words.h"
#include "exchange/tables/stair_table.h"

using namespace sunbreak;
using namespace sunbreak::record;
using namespace sunbreak::evaluation;
using namespace sunbreak::exchange;

namespace {

std::string at(int minute) {
  char text[40];
  std::snprintf(text, sizeof text, "2026-03-14T09:%02d:00.000Z", minute);
  return text;
}

TestRecord with_sensor() {
  TestRecord b;
  Meter sensor;
  sensor.id = 3;
  sensor.factor = 1.02;
  sensor.dark_offset = 1;
  b.meters = {sensor};
  b.test.sensor_id = 3;
  return b;
}

}  // namespace

TEST(StairOfATest, IsCorrectedAsTheSensorIs) {
  TestRecord b = with_sensor();
  b.stair_stops = {{1, 0, 100, 320.0, 0.98, at(0)}, {2, 0, 10, 42.0, 0.8, at(2)}};
  b.stair_readings = {{1, 1, 66, 801, "live", 5, 1.6}, {2, 2, 66, 81, "live", 5, 0.2}};
  const auto stair = stair_of(b);
  ASSERT_TRUE(stair.ok());
  EXPECT_DOUBLE_EQ(*stair.value().rows[1].light_factor, 0.1) << "(81 − 1) / (801 − 1): the dark offset would hide it";
}

TEST(StairOfATest, WithoutOneSaysSo) { EXPECT_FALSE(stair_of(TestRecord{}).ok()); }

TEST(StairOfATest, TheSpreadOfTheReadingsIsTheirNoise) {
  TestRecord b;
  b.stair_stops = {{1, 0, 100, 320.0, {}, at(0)}, {2, 0, 50, 170.0, {}, at(2)}};
  // 4 % apart, by means of four values that scatter by 6 %: that is no pattern yet.
  b.stair_readings = {{1, 1, 0, 800, "live", 4, 48.0},
                      {2, 1, 1, 400, "live", 4, 24.0},
                      {3, 2, 0, 400, "live", 4, 24.0},
                      {4, 2, 1, 192, "live", 4, 11.5}};
  EXPECT_FALSE(stair_of(b).value().pattern_changes);
  for (StairReading& r : b.stair_readings) r.spread = 0.5;
  EXPECT_TRUE(stair_of(b).value().pattern_changes);
}

TEST(TemperaturesOfATest, TakeTheAirNearestInTime) {
  TestRecord b;
  const auto taken = [&](Id id, const char* place, double c, int minute) {
    Temperature t;
    t.id = id;
    t.place = place;
    t.read_c = c;
    t.taken_at = at(minute);
    b.temperatures.push_back(t);
  };
  taken(1, "air", 21, 0);
  taken(2, "driver", 50, 40);
  taken(3, "air", 24, 45);
  EXPECT_EQ(shot_of(b, b.temperatures[1]).air_c, 24);
  EXPECT_EQ(shot_of(b, b.temperatures[0]).air_c, 24) << "not itself";
  b.temperatures[1].taken_at = at(10);
  EXPECT_EQ(shot_of(b, b.temperatures[1]).air_c, 21);
}

TEST(TemperaturesOfATest, AreTakenByTheWayStated) {
  TestRecord b;
  Temperature t;
  t.method = "camera";
  EXPECT_EQ(shot_of(b, t).method, TemperatureMethod::Camera);
  t.method = "infrared";
  EXPECT_EQ(shot_of(b, t).method, TemperatureMethod::Infrared);
  t.method = "";
  EXPECT_EQ(shot_of(b, t).method, TemperatureMethod::Contact);
}

TEST(HeaderWords, AreFoundWholeAndInAnyCase) {
  EXPECT_TRUE(header_names("Power (kW)", "kw"));
  EXPECT_TRUE(header_names("power_w", "w"));
  EXPECT_FALSE(header_names("Power (kW)", "w"));
  EXPECT_TRUE(header_names("POWER_FACTOR", "power factor"));
  EXPECT_TRUE(header_starts("mean ppfd1", "ppfd"));
  EXPECT_FALSE(header_starts("toppfd", "ppfd"));
}

TEST(StairTable, TakesSemicolonsCommasAndPercentSigns) {
  const auto stair =
      read_stair_table("Dimmer;Power (W);PF;PPFD A;PPFD B\n100 %;320,5;0,97;800;400\n50 %;170;;420;209,5\n");
  ASSERT_TRUE(stair.ok()) << stair.problem().sentence();
  ASSERT_EQ(stair.value().steps.size(), 2u);
  const StairStep& half = stair.value().steps[1];
  EXPECT_EQ(half.dial_pct, 50);
  EXPECT_EQ(half.power_w, 170);
  EXPECT_FALSE(half.power_factor);
  ASSERT_EQ(half.light.size(), 2u);
  EXPECT_EQ(half.light[1].ppfd, 209.5);
  EXPECT_EQ(half.light[1].station, 1);
  EXPECT_GT(half.time_s, stair.value().steps[0].time_s) << "in the order they were read";
}

TEST(StairTable, SaysWhatItDidNotTake) {
  const auto stair = read_stair_table("dial,watts,ppfd\n100,320,800\n300,1,1\n50,many,430\n20,80\n");
  ASSERT_TRUE(stair.ok());
  ASSERT_EQ(stair.value().steps.size(), 2u);
  EXPECT_FALSE(stair.value().steps[1].power_w);
  ASSERT_EQ(stair.value().findings.size(), 3u);
  EXPECT_EQ(stair.value().findings[0].row, 3);
  EXPECT_EQ(stair.value().findings[1].words, "'many' is no number in range: not taken");
  EXPECT_EQ(stair.value().findings[2].words, "2 cells where the header has 3: not taken");
}

TEST(StairTable, RefusesATableWithoutADial) {
  EXPECT_FALSE(read_stair_table("").ok());
  EXPECT_FALSE(read_stair_table("watts,ppfd\n320,800\n").ok());
  EXPECT_FALSE(read_stair_table("dial,ppfd\nfull,800\n").ok());
}
