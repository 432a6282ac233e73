#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "checks/square_walk.h"
#include "core/bench/walk_order.h"
#include "core/checks/between_sweeps.h"
#include "core/checks/drift_checks.h"
#include "core/checks/probe_verdict.h"
#include "core/checks/reading_views.h"
#include "core/checks/stuck_checks.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/height_for_center.h"
#include "core/optics/nominal_fixture.h"
#include "core/optics/sampling_advice.h"
#include "core/sweep/field.h"

using namespace sunbreak;

namespace {

const RoomLight& tent() {
  static const RoomLight light({1.2, 1.2, 2.0, {0.8, 0.8, 0.8, 0.8, 0.7, 0.25}});
  return light;
}

FixtureOutline six_bars() {
  FixtureOutline o;
  o.width_m = 1.0;
  o.depth_m = 1.0;
  o.across = 6;
  o.deep = 18;
  return o;
}

/// What the five stations of the probe would read of a fixture hung so.
std::vector<double> probed(const FixtureOutline& fixture, double roll, double pitch, double off_x_m, double off_y_m) {
  std::vector<double> ppfd(layout.stations.size(), unread);
  const auto hung = placed(tilted(nominal_fixture(fixture), roll, pitch), {0.6 + off_x_m, 0.6 + off_y_m, 0.45}, 900);
  for (const int s : opening_probe(layout)) {
    const Vec3 place{layout.stations[s].x_m, layout.stations[s].y_m, 0};
    const Prediction p = tent().predict_once(hung, std::span(&place, 1));
    ppfd[s] = p.direct[0] + p.reflected[0];
  }
  return ppfd;
}

FixtureOutline small_board() {
  FixtureOutline o = six_bars();
  o.width_m = o.depth_m = 0.3;
  o.across = o.deep = 8;
  return o;
}

HangResponse hang(const FixtureOutline& fixture) {
  return hang_response(tent(), nominal_fixture(fixture), layout, 0.45);
}

std::vector<std::string> ids(const std::vector<SweepCheck>& checks) {
  std::vector<std::string> all;
  for (const SweepCheck& c : checks) all.push_back(c.check.id);
  return all;
}

using Ids = std::vector<std::string>;

}  // namespace

TEST(Between, WhatPhysicsAllowsRaisesNothing) {
  const std::vector<SweepSummary> sweeps{{0.6, 100, 480, 560, 322.0},
                                         {0.45, 100, 560, 690, 322.0},
                                         {0.3, 100, 640, 800, 322.0},
                                         {0.45, 50, 300, 370, 165.0}};
  EXPECT_TRUE(between_sweeps_checks(sweeps).empty());
}

TEST(Between, MoreHeightCannotBringMoreLight) {
  const std::vector<SweepSummary> sweeps{{0.6, 100, 600, 590, {}}, {0.45, 100, 560, 690, {}}};
  const auto checks = between_sweeps_checks(sweeps);
  ASSERT_EQ(ids(checks), Ids{"brighter from higher up"});
  EXPECT_EQ(checks[0].sweep, 0u);
  EXPECT_NE(checks[0].check.saw.find("560 at 45 cm"), std::string::npos);
}

TEST(Between, NothingFallsFasterThanTheInverseSquare) {
  // From 30 to 60 cm a point source falls to a quarter; 800 → 180 is beyond that.
  const std::vector<SweepSummary> sweeps{{0.6, 100, 300, 180, {}}, {0.3, 100, 400, 800, {}}};
  EXPECT_EQ(ids(between_sweeps_checks(sweeps)), Ids{"falls faster than distance allows"});
  const std::vector<SweepSummary> exact{{0.6, 100, 300, 200, {}}, {0.3, 100, 400, 800, {}}};
  EXPECT_TRUE(between_sweeps_checks(exact).empty());
}

TEST(Between, DimmedLightAndWattsMustFall) {
  const std::vector<SweepSummary> sweeps{{0.45, 100, 560, 690, 322.0}, {0.45, 75, 580, 700, 322.0}};
  EXPECT_EQ(ids(between_sweeps_checks(sweeps)), (Ids{"brighter when dimmed", "watts do not fall when dimmed"}));
}

TEST(Between, OnlySweepsThatDifferInOneThingAreCompared) {
  const std::vector<SweepSummary> sweeps{{0.6, 100, 700, 800, {}}, {0.45, 50, 300, 370, {}}};
  EXPECT_TRUE(between_sweeps_checks(sweeps).empty());
}

TEST(Between, TooCloseIsUnderOneAndAHalfGaps) {
  EXPECT_TRUE(too_close_check(0.29, 0.2).has_value());
  EXPECT_FALSE(too_close_check(0.30, 0.2).has_value());
  EXPECT_FALSE(too_close_check(0.05, {}).has_value());
}

TEST(DriftCheck, SaysWhenItIsOverOneAndOverThreePercent) {
  const auto by = [](double share) { return drift_check(Drift({{0, 500, 0.001}, {60, 500 * (1 + share), 0.001}})); };
  EXPECT_FALSE(by(-0.008).has_value());
  ASSERT_TRUE(by(-0.02).has_value());
  EXPECT_EQ(by(-0.02)->severity, Severity::Look);
  EXPECT_EQ(by(-0.04)->severity, Severity::Bad);
  EXPECT_NE(by(-0.04)->saw.find("4.0 % down"), std::string::npos);
}

TEST(Stuck, ASensorThatDoesNotMoveAmongOnesThatDo) {
  std::vector<SampledReading> readings(20, {5, 1.2});
  EXPECT_TRUE(stuck_checks(readings).empty());
  readings[7] = readings[8] = {5, 0.0};
  const auto checks = stuck_checks(readings);
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_EQ(checks[0].stations, (std::vector<int>{7, 8}));
  EXPECT_TRUE(stuck_checks(std::vector<SampledReading>(20, {5, 0.0})).empty()) << "a sensor with coarse digits";
}

TEST(Noise, IsTheScatterOfTheReadings) {
  std::mt19937_64 random(5);
  std::normal_distribution<double> normal;
  std::vector<double> ppfd;
  for (const Station& s : layout.stations)
    ppfd.push_back(800 * std::exp(-std::pow(s.x_m - 0.6, 2) - std::pow(s.y_m - 0.6, 2)) * (1 + 0.015 * normal(random)));
  EXPECT_NEAR(reading_noise(layout, ppfd), 0.015, 0.003);
  EXPECT_TRUE(std::isnan(reading_noise(layout, std::vector<double>(144, unread))));
}

TEST(Probe, SaysNothingUntilAllCornersAreRead) {
  auto ppfd = probed(six_bars(), 0, 0, 0, 0);
  ppfd[0] = unread;
  EXPECT_FALSE(probe_verdict(layout, ppfd, hang(six_bars())).has_value());
}

TEST(Probe, ATrueHungFixtureIsToldSo) {
  const auto verdict = probe_verdict(layout, probed(six_bars(), 0, 0, 0, 0), hang(six_bars()));
  ASSERT_TRUE(verdict);
  EXPECT_FALSE(verdict->check.has_value());
  EXPECT_NE(verdict->words.find("level"), std::string::npos);
}

TEST(Probe, NamesTheSideAndHowFarItLeans) {
  // The right side 3° low: over the board's 26 cm between outer emitters that is 26 cm · tan 3° = 1.4 cm. A Lambertian
  // board that leans to the right shines to the left.
  const auto verdict = probe_verdict(layout, probed(small_board(), 3, 0, 0, 0), hang(small_board()));
  ASSERT_TRUE(verdict && verdict->check);
  EXPECT_NE(verdict->check->saw.find("left side"), std::string::npos) << verdict->check->saw;
  const std::string& remedy = verdict->check->remedy;
  double cm = 0;
  ASSERT_NE(remedy.find("lower the left side about "), std::string::npos) << remedy;
  std::sscanf(remedy.substr(remedy.find("about ")).c_str(), "about %lf", &cm);
  EXPECT_NEAR(cm, 1.4, 0.3);
}

TEST(Probe, NamesTheWayAndHowFarItSitsOff) {
  for (const FixtureOutline& fixture : {six_bars(), small_board()}) {
    const auto off = probe_verdict(layout, probed(fixture, 0, 0, 0, 0.04), hang(fixture));
    ASSERT_TRUE(off && off->check);
    const std::string& remedy = off->check->remedy;
    double cm = 0;
    ASSERT_NE(remedy.find("move it "), std::string::npos) << remedy;
    std::sscanf(remedy.substr(remedy.find("move it")).c_str(), "move it %lf", &cm);
    EXPECT_NEAR(cm, 4, 0.5);
    EXPECT_NE(remedy.find("cm toward the door"), std::string::npos) << remedy;
  }
}

TEST(Probe, BothWaysOffNameACorner) {
  const auto verdict = probe_verdict(layout, probed(six_bars(), 0, 0, -0.03, 0.03), hang(six_bars()));
  ASSERT_TRUE(verdict && verdict->check);
  EXPECT_NE(verdict->check->saw.find("far left corner"), std::string::npos) << verdict->check->saw;
}

TEST(Probe, WhatTheRoomItselfDoesIsTakenOff) {
  // A dark right wall makes the right corners dimmer under a fixture that hangs true.
  const RoomLight lopsided({1.2, 1.2, 2.0, {0.9, 0.02, 0.8, 0.8, 0.7, 0.25}});
  const auto fixture = nominal_fixture(six_bars());
  const HangResponse response = hang_response(lopsided, fixture, layout, 0.45);
  EXPECT_LT(response.expected_right_over_left_pct, -5);
  std::vector<double> ppfd(144, unread);
  const auto hung = placed(fixture, {0.6, 0.6, 0.45}, 900);
  for (const int s : opening_probe(layout)) {
    const Vec3 place{layout.stations[s].x_m, layout.stations[s].y_m, 0};
    const Prediction p = lopsided.predict_once(hung, std::span(&place, 1));
    ppfd[s] = p.direct[0] + p.reflected[0];
  }
  EXPECT_FALSE(probe_verdict(layout, ppfd, response)->check.has_value());
}

TEST(NominalFixture, BeamAnglesBecomeExponents) {
  EXPECT_NEAR(exponent_of_beam(120), 1, 1e-12);
  const double m = exponent_of_beam(60);
  EXPECT_NEAR(std::pow(std::cos(30 * std::acos(-1) / 180), m), 0.5, 1e-12);
}

TEST(NominalFixture, UnitsShareTheLightAndHangSideBySide) {
  FixtureOutline o = six_bars();
  o.columns = 2;
  o.spacing_x_m = 0.5;
  o.width_m = 0.3;
  double ppf = 0, left = 0, right = 0;
  for (const Emitter& e : nominal_fixture(o)) {
    ppf += e.ppf_umol_s;
    left = std::min(left, e.place_m.x), right = std::max(right, e.place_m.x);
  }
  EXPECT_NEAR(ppf, 1, 1e-12);
  EXPECT_NEAR(right, 0.25 + 0.15, 0.03);
  EXPECT_NEAR(left, -right, 1e-12);
  EXPECT_NEAR(whole_width_m(o), 0.8, 1e-12);
}

TEST(Advice, FewStationsDoForASmoothFieldAndMoreCloseUnderBars) {
  const auto needed = [&](double height_m) {
    return stations_for_mean(tent(), placed(nominal_fixture(six_bars()), {0.6, 0.6, height_m}), 0.01);
  };
  const StationsNeeded high = needed(0.6), low = needed(0.08);
  EXPECT_LE(std::abs(high.mean_error), 0.01);
  EXPECT_LE(high.columns, 6);
  EXPECT_GT(low.columns, high.columns);
}

TEST(Advice, TheHeightForACenterReadingGivesThatReading) {
  auto fixture = nominal_fixture(six_bars());
  for (Emitter& e : fixture) e.ppf_umol_s *= 900;
  const auto height = height_for_center(tent(), fixture, 700, 0.05, 1.8);
  ASSERT_TRUE(height);
  const Vec3 middle{0.6, 0.6, 0};
  const Prediction p = tent().predict_once(placed(fixture, {0.6, 0.6, *height}), std::span(&middle, 1));
  EXPECT_NEAR(p.direct[0] + p.reflected[0], 700, 3);
  EXPECT_FALSE(height_for_center(tent(), fixture, 50000, 0.05, 1.8).has_value());
  EXPECT_FALSE(height_for_center(tent(), fixture, 5, 0.05, 1.8).has_value()) << "brighter at every height";
}
