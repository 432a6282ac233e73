#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

#include "core/heat/surface_temperature.h"

namespace sunbreak {
namespace {

TemperatureShot shot(double read, std::optional<double> set, std::optional<double> is, std::optional<double> mirrored) {
  return {read, TemperatureMethod::Infrared, set, is, mirrored, false, {}};
}

TEST(SurfaceTemperature, WorkedByHand) {
  // 40 °C read with 0.95 set off a surface of 0.60 that mirrors 22 °C:
  // 313.15⁴ = 9.6163e9, 295.15⁴ = 7.5887e9; 7.5887e9 + 2.0276e9 · 0.95 / 0.60 = 1.07990e10, its fourth root 322.36 K.
  const auto found = surface_temperature_c(shot(40, 0.95, 0.60, 22));
  ASSERT_TRUE(found.ok());
  EXPECT_NEAR(found.value(), 49.21, 0.02);
}

TEST(SurfaceTemperature, AirStandsInForWhatIsMirrored) {
  TemperatureShot s = shot(40, 0.95, 0.60, {});
  s.air_c = 22;
  EXPECT_NEAR(surface_temperature_c(s).value(), 49.21, 0.02);
}

TEST(SurfaceTemperature, AThermocoupleIsTakenAsRead) {
  TemperatureShot s = shot(40, 0.95, 0.60, 22);
  s.method = TemperatureMethod::Contact;
  EXPECT_EQ(surface_temperature_c(s).value(), 40);
  EXPECT_TRUE(temperature_checks(s).empty());
}

TEST(SurfaceTemperature, RefusesWhatCannotBe) {
  EXPECT_FALSE(surface_temperature_c(shot(40, 1.4, 0.6, 22)).ok());
  EXPECT_FALSE(surface_temperature_c(shot(40, 0.95, 0, 22)).ok());
  EXPECT_FALSE(surface_temperature_c(shot(4000, 0.95, 0.95, 22)).ok());
  // Far colder than what it mirrors, off a surface that hardly radiates: no such surface.
  EXPECT_FALSE(surface_temperature_c(shot(10, 0.95, 0.05, 80)).ok());
}

RC_GTEST_PROP(SurfaceTemperatureProperty, TheInstrumentWouldReadTheSurfaceFound,
              (unsigned char a, unsigned char b, unsigned char c, unsigned char d)) {
  const double set = 0.3 + 0.7 * a / 255, is = 0.3 + 0.7 * b / 255, mirrored = 10 + 30.0 * c / 255,
               surface = 20 + 90.0 * d / 255;
  const auto fourth = [](double celsius) { return std::pow(celsius + 273.15, 4); };
  // What reaches the instrument: own radiation and what is mirrored; it solves with the emissivity set.
  const double seen = is * fourth(surface) + (1 - is) * fourth(mirrored);
  const double read = std::pow((seen - (1 - set) * fourth(mirrored)) / set, 0.25) - 273.15;
  const auto found = surface_temperature_c(shot(read, set, is, mirrored));
  RC_ASSERT(found.ok());
  RC_ASSERT(std::abs(found.value() - surface) < 1e-6);
}

TEST(TemperatureChecks, HotBareAndUnstated) {
  TemperatureShot s = shot(72, 0.95, 0.95, 22);
  ASSERT_EQ(temperature_checks(s).size(), 1u);
  EXPECT_EQ(temperature_checks(s)[0].id, "hot enough to burn");
  s.read_c = 60;
  EXPECT_TRUE(temperature_checks(s).empty());
  s.bare_metal = true;
  ASSERT_EQ(temperature_checks(s).size(), 1u);
  EXPECT_EQ(temperature_checks(s)[0].id, "shot off bare metal");
  EXPECT_EQ(temperature_checks(shot(40, {}, {}, {}))[0].id, "emissivity not stated");
  EXPECT_EQ(temperature_checks(shot(40, 0.95, 0.6, {}))[0].id, "reflected temperature not stated");
}

}  // namespace
}  // namespace sunbreak
