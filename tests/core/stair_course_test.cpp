#include "core/walk/stair_course.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace sunbreak;

namespace {

using Phase = StairCourse::Phase;

/// Feeds still watts, one a second, until they are taken.
void hold_watts(StairCourse& stair, double watts) {
  for (int t = 0; t < 60 && stair.phase() == Phase::Watts; ++t) stair.feed_watts(t, watts, 0.97);
}

void hold_light(StairCourse& stair, double raw) {
  const int station = stair.station();
  for (int i = 0; i < 20 && stair.phase() == Phase::Light && stair.station() == station && stair.gathering(); ++i)
    stair.feed_light(raw);
}

}  // namespace

TEST(StairCourse, ReadsWattsThenLightAtEachSetting) {
  StairCourse stair({100, 50}, {7});
  for (const double percent : {100.0, 50.0}) {
    ASSERT_EQ(stair.phase(), Phase::Set);
    EXPECT_EQ(stair.setting_pct(), percent);
    stair.dial_is_set();
    hold_watts(stair, 4 * percent);
    ASSERT_EQ(stair.phase(), Phase::Light);
    stair.sensor_is_there();
    hold_light(stair, 8 * percent);
    ASSERT_EQ(stair.phase(), Phase::Read);
    EXPECT_EQ(stair.step().power_w, 4 * percent);
    EXPECT_EQ(stair.step().power_factor, 0.97);
    ASSERT_EQ(stair.step().light.size(), 1u);
    EXPECT_EQ(stair.step().light[0].station, 7);
    EXPECT_EQ(stair.step().light[0].raw.value, 8 * percent);
    EXPECT_GT(stair.step().light[0].raw.samples, 1);
    stair.next();
  }
  EXPECT_EQ(stair.phase(), Phase::Done);
  EXPECT_FALSE(stair.setting_pct());
}

TEST(StairCourse, WattsThatMoveAreNotTaken) {
  StairCourse stair({80}, {0});
  stair.dial_is_set();
  for (int t = 0; t < 100; ++t) EXPECT_FALSE(stair.feed_watts(t, 300 * std::pow(0.99, t), {}));
  EXPECT_EQ(stair.phase(), Phase::Watts);
}

TEST(StairCourse, ValuesFromBeforeTheChangeAreLetPass) {
  StairCourse stair({10}, {0});
  stair.dial_is_set();
  EXPECT_FALSE(stair.feed_watts(0, 1.5, {})) << "so little is standby: taken at once, were it not from before";
  EXPECT_FALSE(stair.feed_watts(1, 1.5, {}));
  EXPECT_TRUE(stair.feed_watts(2, 1.5, {}));
}

TEST(StairCourse, StandbyHasNoLight) {
  StairCourse stair({0}, {0, 1});
  stair.dial_is_set();
  stair.take_watts(0.4, {});
  EXPECT_EQ(stair.phase(), Phase::Read);
  EXPECT_TRUE(stair.step().light.empty());
}

TEST(StairCourse, LightIsOfTheStationOnlyOnceTheSensorIsThere) {
  StairCourse stair({60}, {3, 9});
  stair.dial_is_set();
  stair.take_watts(200, {});
  for (int i = 0; i < 30; ++i) EXPECT_FALSE(stair.feed_light(500));
  stair.sensor_is_there();
  hold_light(stair, 500);
  ASSERT_EQ(stair.station(), 9);
  EXPECT_FALSE(stair.gathering()) << "the sensor is still on its way to the second";
  stair.take_light({410, 1, 0});
  ASSERT_EQ(stair.phase(), Phase::Read);
  EXPECT_EQ(stair.step().light[1].raw.value, 410);
}

TEST(StairCourse, ASettingCanBeLeftOutOrReadAnew) {
  StairCourse stair({100, 90, 80}, {0});
  stair.next();
  EXPECT_EQ(stair.setting_pct(), 90);
  stair.dial_is_set();
  stair.take_watts(250, {});
  stair.take_light({700, 1, 0});
  stair.read_again();
  EXPECT_EQ(stair.phase(), Phase::Set);
  EXPECT_EQ(stair.setting_pct(), 90);
  EXPECT_TRUE(stair.step().light.empty());
  stair.next();
  stair.next();
  EXPECT_EQ(stair.phase(), Phase::Done);
}
