#include <gtest/gtest.h>

#include "instruments/line_buffer.h"
#include "instruments/line_format.h"
#include "instruments/simulator/device_commands.h"

using namespace sunbreak;
using namespace sunbreak::instruments;

TEST(LineBuffer, CutsLinesHoweverTheyArrive) {
  LineBuffer buffer;
  for (const char c : QByteArray("12.5\r\n13.5\n14")) buffer.add(QByteArray(1, c));
  EXPECT_EQ(buffer.next(), QByteArray("12.5"));
  EXPECT_EQ(buffer.next(), QByteArray("13.5"));
  EXPECT_FALSE(buffer.next().has_value());
  buffer.add("\n");
  EXPECT_EQ(buffer.next(), QByteArray("14"));
}

TEST(LineBuffer, AFloodWithoutALineEndIsThrownAwayWhole) {
  LineBuffer buffer;
  for (int i = 0; i < 1024; ++i) buffer.add(QByteArray(1024, 'x'));
  buffer.add("9\n424.5\n");
  EXPECT_EQ(buffer.next(), QByteArray("424.5")) << "the flood's tail is no reading";
}

TEST(LineFormat, TakesTheColumnItIsTold) {
  EXPECT_EQ(value_in("12:00:01;424,5;ok", {';', 2, 1, ','}), 424.5);
  EXPECT_EQ(value_in("  7   8.5  9", {' ', 2, 2, '.'}), 17);
  EXPECT_EQ(value_in("1\t2\t3", {'\t', 3, 0.1, '.'}), 3 * 0.1);
  for (const char* line : {"", "a,b", "1", "1,", "1,nan", "1,1e300", "1,4 24"})
    EXPECT_FALSE(value_in(line, {',', 2, 1, '.'}).has_value()) << line;
}

TEST(LineFormat, WallValuesAreSixNumbers) {
  const auto values = wall_values_in("230.2,1.468,330.7,338.0,0.978,50.01");
  ASSERT_TRUE(values.has_value());
  EXPECT_EQ(values->watts, 330.7);
  for (const char* line :
       {"230.2,1.468,330.7,338.0,0.978", "230.2,1.468,330.7,338.0,0.978,50.01,7", "230.2,x,330.7,338.0,0.978,50.01"})
    EXPECT_FALSE(wall_values_in(line).has_value()) << line;
}

class SimulatedBenchTest : public ::testing::Test {
 protected:
  /// A bench that is on and stabilized, with an ideal sensor.
  static SimulatedScene ideal() {
    SimulatedScene scene = SimulatedScene::six_bars();
    scene.calibration_error = scene.noise = scene.dark = scene.cosine_loss = scene.tilt_chance = 0;
    scene.off_x_m = 0;
    return scene;
  }
  static void settle(SimulatedBench& bench) {
    bench.switch_on(true);
    bench.advance(36'000);
  }
};

TEST_F(SimulatedBenchTest, LightAndWattsFallAsItWarms) {
  SimulatedBench bench(ideal());
  EXPECT_EQ(bench.true_ppfd(), 0);
  bench.switch_on(true);
  const double light = bench.true_ppfd(), watts = bench.wall_reading().watts;
  bench.advance(600);
  const double later = bench.true_ppfd();
  EXPECT_LT(later, light);
  EXPECT_LT(bench.wall_reading().watts, watts);
  EXPECT_GT(bench.driver_temperature_c(), 30);
  bench.advance(36'000);
  EXPECT_NEAR(light / bench.true_ppfd(), 1.06, 1e-6);
  EXPECT_NEAR(bench.wall_reading().watts, 322, 3);
}

TEST_F(SimulatedBenchTest, AnIdealSensorShowsTheTruth) {
  SimulatedBench bench(ideal());
  settle(bench);
  EXPECT_NEAR(bench.sensor_reading(), bench.true_ppfd(), 0.051);
}

TEST_F(SimulatedBenchTest, TheDimmerIsNotLinear) {
  SimulatedBench bench(ideal());
  settle(bench);
  const double full = bench.true_ppfd(), full_watts = bench.wall_reading().watts;
  bench.set_dimmer(50);
  EXPECT_GT(bench.true_ppfd(), 0.5 * full);
  EXPECT_GT(bench.wall_reading().watts, 0.5 * full_watts);
  bench.set_dimmer(300);
  EXPECT_LT(bench.true_ppfd(), 1.11 * full);
}

TEST_F(SimulatedBenchTest, TheCarriageTakesItsTimeAndKeepsItsLimits) {
  SimulatedBench bench(ideal());
  EXPECT_FALSE(bench.move_to(0.001, 0.6));
  EXPECT_FALSE(bench.move_to(0.6, 1.3));
  ASSERT_TRUE(bench.move_to(0.1, 0.6));
  EXPECT_TRUE(bench.moving());
  bench.advance(1);
  EXPECT_NEAR(bench.position().x, 0.35, 1e-9);
  bench.advance(1);
  EXPECT_FALSE(bench.moving());
  EXPECT_NEAR(bench.position().x, 0.1, 1e-9);
}

TEST_F(SimulatedBenchTest, FaultsShowWhereTheyShould) {
  SimulatedBench bench(ideal());
  settle(bench);
  const double middle = bench.sensor_reading();
  bench.set_shadow(Vec3{0.6, 0.6, 0});
  EXPECT_NEAR(bench.sensor_reading() / middle, 0.6, 0.01);
  bench.set_shadow(std::nullopt);
  bench.set_stuck(true);
  bench.set_dimmer(10);
  EXPECT_NEAR(bench.sensor_reading() / middle, 0.6, 0.01) << "the last value shown, again and again";
  bench.set_stuck(false);
  EXPECT_LT(bench.sensor_reading(), 0.3 * middle);
  bench.set_dimmer(100);
  const auto side = [&](double x) {
    bench.move_to(x, 0.6);
    bench.advance(10);
    return bench.true_ppfd();
  };
  bench.set_level(0, 0);
  EXPECT_NEAR(side(0.2) / side(1.0), 1, 1e-6);
  bench.set_center(0.05, 0);
  EXPECT_LT(side(0.2), side(1.0)) << "hung off to the right";
  bench.set_center(0, 0);
  bench.set_level(4, 0);
  EXPECT_LT(side(0.2), side(1.0)) << "its right side hangs lower";
}

TEST_F(SimulatedBenchTest, CommandsAnswerAndRememberErrors) {
  SimulatedBench bench(ideal());
  LineFaults faults;
  double speed = 1;
  DeviceCommands sensor(Device::Sensor, bench, faults, speed), carriage(Device::Carriage, bench, faults, speed),
      control(Device::Control, bench, faults, speed);
  EXPECT_NE(sensor.answer("*idn?").find("quantum sensor"), std::string::npos);
  EXPECT_EQ(sensor.answer("MEAS:PPFD?"), "0.0");
  EXPECT_EQ(sensor.answer("MEAS:POW?"), "") << "not this device's";
  EXPECT_EQ(sensor.answer("SYST:ERR?"), "-113,\"Undefined header\"");
  EXPECT_EQ(sensor.answer("SYST:ERR?"), "0,\"No error\"");
  EXPECT_EQ(carriage.answer("POS 0.1,0.2"), "");
  EXPECT_EQ(carriage.answer("MOV?"), "1");
  carriage.answer("POS 9,9");
  carriage.answer("POS x");
  EXPECT_EQ(carriage.answer("SYST:ERR?"), "-222,\"Data out of range\"");
  EXPECT_EQ(carriage.answer("SYST:ERR?"), "-104,\"Data type error\"");
  EXPECT_EQ(control.answer("SIM:POW 1"), "OK");
  EXPECT_TRUE(bench.is_on());
  EXPECT_EQ(control.answer("SIM:SPE 60"), "OK");
  EXPECT_EQ(speed, 60);
  EXPECT_EQ(control.answer("SIM:NONSENSE 1"), "");
}
