#include "core/whole_light/whole_light.h"

#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>
#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <random>

#include "core/optics/fixture_shapes.h"
#include "core/optics/room_light.h"
#include "core/whole_light/believed_room.h"
#include "core/whole_light/between_heights.h"
#include "core/whole_light/bounded_quadratic.h"
#include "core/whole_light/elsewhere.h"
#include "core/whole_light/reference_rooms.h"

using namespace sunbreak;

namespace {

/// A small emitter, or a board, over an open floor of 1 × 1 m read at 7 × 7 stations and some heights, without noise.
WholeLightQuestion open_bench(const std::vector<Emitter>& lamp, const std::vector<double>& heights_m, double x_m = 0,
                              double y_m = 0) {
  WholeLightQuestion q;
  q.room = {1, 1, 2, {}};
  q.outline.width_m = q.outline.depth_m = 0.01;
  q.outline.across = q.outline.deep = 1;
  q.noise = 0.002, q.place_m = 0.001;
  const Layout layout = lay_out({1, 1}, Grid{GridKind::Cells, 7, 7, 0, 0, {}}).value();
  for (const double height : heights_m) {
    FitSweep sweep{height, 0, layout, {}};
    for (const Station& s : layout.stations)
      sweep.ppfd.push_back(direct_ppfd(placed(lamp, {0.5 + x_m, 0.5 + y_m, height}), {s.x_m, s.y_m, 0}));
    q.sweeps.push_back(sweep);
  }
  return q;
}

WholeLightQuestion one_emitter() { return open_bench({{{}, straight_down, 400, 2}}, {0.25, 0.4, 0.6}, 0.012, -0.02); }

/// The same readings with x running the other way.
WholeLightQuestion mirrored(WholeLightQuestion q) {
  for (FitSweep& sweep : q.sweeps)
    for (int row = 0; row < 7; ++row) std::reverse(sweep.ppfd.begin() + 7 * row, sweep.ppfd.begin() + 7 * row + 7);
  return q;
}

/// The same readings, brighter and dimmer in turn.
WholeLightQuestion beyond_any_model(WholeLightQuestion q) {
  for (FitSweep& sweep : q.sweeps)
    for (std::size_t i = 0; i < sweep.ppfd.size(); ++i) sweep.ppfd[i] *= (i / 7 + i % 7) % 2 == 0 ? 0.7 : 1.3;
  return q;
}

}  // namespace

RC_GTEST_PROP(BoundedMinimum, HoldsEveryConditionOfALeast, ()) {
  std::mt19937 random(*rc::gen::arbitrary<unsigned>());
  std::normal_distribution<double> normal;
  constexpr Eigen::Index n = 9;
  const Eigen::MatrixXd a = Eigen::MatrixXd::NullaryExpr(20, n, [&] { return normal(random); });
  const Eigen::MatrixXd h = a.transpose() * a;
  const Eigen::VectorXd g = Eigen::VectorXd::NullaryExpr(n, [&] { return 10 * normal(random); });
  const Eigen::VectorXd lower = Eigen::VectorXd::Constant(n, -0.1), upper = Eigen::VectorXd::Constant(n, 0.3);
  const Eigen::VectorXd x = bounded_minimum(h, g, lower, upper, Eigen::VectorXd::Zero(n));
  const Eigen::VectorXd pull = g - h * x;
  for (Eigen::Index i = 0; i < n; ++i) {
    RC_ASSERT(x(i) >= lower(i) && x(i) <= upper(i));
    if (x(i) > lower(i)) RC_ASSERT(pull(i) > -1e-7);
    if (x(i) < upper(i)) RC_ASSERT(pull(i) < 1e-7);
  }
}

TEST(WholeLight, OneEmitterOverAnOpenFloorIsRecovered) {
  const WholeLight w = whole_light(one_emitter());
  ASSERT_TRUE(w.fits) << w.reason;
  EXPECT_NEAR(w.ppf_umol_s.value, 400, 0.4);
  EXPECT_NEAR(w.offset_x_m.value, 0.012, 1e-3);
  EXPECT_NEAR(w.offset_y_m.value, -0.02, 1e-3);
  EXPECT_NEAR(w.roll_deg[0].value, 0, 0.1);
  EXPECT_NEAR(w.half_angle_deg.value, 45, 0.5);  // cos²θ = ½
  EXPECT_LT(w.residual_rms, 1e-3);
  EXPECT_TRUE(std::isnan(w.wall_reflectance.value)) << "there is none";
}

TEST(WholeLight, TwoLobesTogetherAreRecovered) {
  const WholeLight w =
      whole_light(open_bench({{{}, straight_down, 150, 21}, {{}, straight_down, 250, 1}}, {0.2, 0.35, 0.5}));
  ASSERT_TRUE(w.fits) << w.reason;
  EXPECT_NEAR(w.ppf_umol_s.value, 400, 1.2);
}

TEST(WholeLight, OrderMirrorAndScaleChangeWhatTheyShould) {
  const WholeLightQuestion q = one_emitter();
  const WholeLight w = whole_light(q);
  WholeLightQuestion turned = q, brighter = q;
  std::reverse(turned.sweeps.begin(), turned.sweeps.end());
  for (FitSweep& sweep : brighter.sweeps)
    for (double& ppfd : sweep.ppfd) ppfd *= 3;
  EXPECT_NEAR(whole_light(turned).ppf_umol_s.value, w.ppf_umol_s.value, 1e-4 * w.ppf_umol_s.value);
  const WholeLight scaled = whole_light(brighter), seen_from_behind = whole_light(mirrored(q));
  EXPECT_NEAR(scaled.ppf_umol_s.value, 3 * w.ppf_umol_s.value, 1e-3 * w.ppf_umol_s.value);
  EXPECT_NEAR(scaled.ppf_umol_s.expanded, 3 * w.ppf_umol_s.expanded, 0.1 * w.ppf_umol_s.expanded);
  EXPECT_NEAR(seen_from_behind.ppf_umol_s.value, w.ppf_umol_s.value, 1e-3 * w.ppf_umol_s.value);
  EXPECT_NEAR(seen_from_behind.offset_x_m.value, -w.offset_x_m.value, 1e-4);
}

TEST(WholeLight, ABoxOfOneReflectanceIsFound) {
  const Room room{1.2, 1.2, 2, {0.6, 0.6, 0.6, 0.6, 0.6, 0.3}};
  WholeLightQuestion q;
  q.room = {1.2, 1.2, 2, {}};
  q.sides = believed_sides({"white", "white", "white", "white"});
  q.outline.width_m = q.outline.depth_m = 0.4, q.outline.across = q.outline.deep = 4;
  q.noise = 0.005, q.place_m = 0.002;
  const Layout layout = lay_out({1.2, 1.2}, Grid{GridKind::Cells, 6, 6, 0, 0, {}}).value();
  std::vector<Vec3> places;
  for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
  const RoomLight model(room);
  for (const double height : {0.3, 0.5}) {
    const Prediction p = model.predict_once(placed(board(0.4, 0.4, 4, 4, 300), {0.6, 0.6, height}), places);
    FitSweep sweep{height, 0, layout, {}};
    for (std::size_t i = 0; i < places.size(); ++i) sweep.ppfd.push_back(p.direct[i] + p.reflected[i]);
    q.sweeps.push_back(sweep);
  }
  q.sweeps[0].ppfd[8] *= 0.5;  // a slip
  const WholeLight w = whole_light(q);
  ASSERT_TRUE(w.fits) << w.reason;
  EXPECT_NEAR(w.ppf_umol_s.value, 300, w.ppf_umol_s.expanded);
  EXPECT_NEAR(w.ppf_umol_s.value, 300, 9);
  EXPECT_NEAR(w.wall_reflectance.value, 0.6, std::max(0.02, w.wall_reflectance.expanded));
  ASSERT_EQ(w.odd.size(), 1u);
  EXPECT_EQ(w.odd[0].station, 8);
  ASSERT_EQ(w.utilization.size(), 2u);
  EXPECT_GT(w.utilization[0].share.value, w.utilization[1].share.value);
}

TEST(WholeLight, WhatDoesNotFitGivesNoFigure) {
  WholeLightQuestion q = beyond_any_model(one_emitter());
  const WholeLight w = whole_light(q);
  EXPECT_FALSE(w.fits);
  EXPECT_TRUE(std::isnan(w.ppf_umol_s.value));
  EXPECT_FALSE(w.reason.empty());
  EXPECT_FALSE(w.advice.empty());
  for (FitSweep& sweep : q.sweeps) std::fill(sweep.ppfd.begin(), sweep.ppfd.end(), unread);
  EXPECT_FALSE(whole_light(q).fits) << "nothing was read";
}

TEST(WholeLight, DimmedSweepsShareOneBeam) {
  WholeLightQuestion q = one_emitter();
  FitSweep dimmed = q.sweeps[1];
  dimmed.setting = 1;
  for (double& ppfd : dimmed.ppfd) ppfd *= 0.43;
  q.sweeps.push_back(dimmed);
  const WholeLight w = whole_light(q);
  ASSERT_TRUE(w.fits) << w.reason;
  ASSERT_EQ(w.setting_factors.size(), 2u);
  EXPECT_NEAR(w.setting_factors[1].value, 0.43, 1e-3);
  EXPECT_NEAR(w.ppf_umol_s.value, 400, 0.8);
}

TEST(WholeLight, ManyUnitsLeanAsOneFrame) {
  WholeLightQuestion q = one_emitter();
  q.outline.columns = 100;
  const WholeLight w = whole_light(q);  // a boundary that a record may state: it has to come to an end
  EXPECT_LE(w.roll_deg.size(), 1u);
}

TEST(BetweenHeights, AHeightBetweenIsWhatTheLampGivesThere) {
  const WholeLightQuestion q = one_emitter();
  const WholeLight w = whole_light(q);
  const BetweenHeights between(q, w, left_out_heights(q, w));
  EXPECT_EQ(between.way(), BetweenWay::Model);
  const auto predicted = between.at(0.5, {});
  ASSERT_TRUE(predicted) << predicted.problem().sentence();
  for (std::size_t i = 0; i < predicted.value().ppfd.size(); ++i) {
    const Station& s = q.sweeps[0].layout.stations[i];
    const double truth =
        direct_ppfd(std::vector<Emitter>{{{0.512, 0.48, 0.5}, straight_down, 400, 2}}, {s.x_m, s.y_m, 0});
    EXPECT_NEAR(predicted.value().ppfd[i], truth, 2e-3 * truth);
    EXPECT_GT(predicted.value().station_expanded, 0);
  }
  EXPECT_TRUE(between.at(0.6 + 0.25 * 0.35, {}));
  EXPECT_FALSE(between.at(0.6 + 0.26 * 0.35, {})) << "a quarter of the range beyond, no more";
  EXPECT_FALSE(between.at(0.1, {}));
}

TEST(BetweenHeights, WithoutAFitTheCubicAnswersCloserIn) {
  WholeLightQuestion q = beyond_any_model(one_emitter());
  const WholeLight w = whole_light(q);
  ASSERT_FALSE(w.fits);
  const BetweenHeights between(q, w, left_out_heights(q, w));
  EXPECT_EQ(between.way(), BetweenWay::Cubic);
  const auto predicted = between.at(0.4, {});
  ASSERT_TRUE(predicted);
  for (std::size_t i = 0; i < predicted.value().ppfd.size(); ++i)
    EXPECT_NEAR(predicted.value().ppfd[i], q.sweeps[1].ppfd[i], 1e-9) << "a measured height is itself";
  EXPECT_FALSE(between.at(0.6 + 0.15 * 0.35, {}));
}

TEST(BetweenHeights, OfTwoHeightsWithoutAFitTheShapeBetweenIsNotKnown) {
  WholeLightQuestion q = beyond_any_model(open_bench({{{}, straight_down, 400, 2}}, {0.25, 0.55}));
  q.height_sd_m = 0.003, q.datum_sd_m = 0.004;
  constexpr double tape_m = 0.005;
  const WholeLight w = whole_light(q);
  ASSERT_FALSE(w.fits);
  const BetweenHeights between(q, w, left_out_heights(q, w));
  ASSERT_EQ(between.way(), BetweenWay::Cubic);
  const auto sum = [](const FitSweep& sweep) {
    double all = 0;
    for (const double ppfd : sweep.ppfd) all += ppfd;
    return all;
  };
  // Half way by the length, ln 1.6 / ln 2.2 of the way by the ratio.
  const double apart = std::log(1.6) / std::log(2.2) - 0.5;
  EXPECT_NEAR(between.errors_at(0.4).mean_sd,
              std::hypot(tape_m / 0.4, apart * std::log(sum(q.sweeps[0]) / sum(q.sweeps[1]))), 1e-12);
  EXPECT_NEAR(between.errors_at(0.25).mean_sd, tape_m / 0.25, 1e-12) << "a walked height is as sure as its tape";
  EXPECT_NEAR(between.errors_at(0.55).mean_sd, tape_m / 0.55, 1e-12);
  // Under the lamp light falls with the square of the height: more than all over the floor.
  const auto middle = between.at_places({{0.5, 0.5, 0}});
  const double sd = between.mean_sd_of(*middle, {}, 0.4), predicted = middle->at(std::vector<double>{0.4})[0][0][0],
               truth = q.sweeps[0].ppfd[24] * std::pow(0.25 / 0.4, 2);
  EXPECT_NEAR(sd, std::hypot(tape_m / 0.4, apart * 2 * std::log(2.2)), 1e-6);
  EXPECT_GT(sd, between.errors_at(0.4).mean_sd);
  EXPECT_LT(std::abs(std::log(predicted / truth)), 1.01 * sd);
}

TEST(Elsewhere, AnOpenFloorIsTheLampAlone) {
  const WholeLightQuestion q = one_emitter();
  const WholeLight w = whole_light(q);
  const Layout floor = lay_out({2, 1}, Grid{GridKind::Cells, 8, 4, 0, 0, {}}).value();
  const Elsewhere elsewhere(w, open_floor({2, 1}), floor);
  const Restated one = elsewhere.at({}, 0.5), pair = elsewhere.at({2, 1, 1.0, 0}, 0.5, 0.5);
  const std::vector<Emitter> alone{{{1, 0.5, 0.5}, straight_down, 400, 2}};
  const std::vector<Emitter> both{{{0.5, 0.5, 0.5}, straight_down, 200, 2}, {{1.5, 0.5, 0.5}, straight_down, 200, 2}};
  double mean = 0;
  for (std::size_t i = 0; i < floor.stations.size(); ++i) {
    const Vec3 place{floor.stations[i].x_m, floor.stations[i].y_m, 0};
    EXPECT_NEAR(one.ppfd[i], direct_ppfd(alone, place), 2e-3 * direct_ppfd(alone, place));
    EXPECT_NEAR(pair.ppfd[i], direct_ppfd(both, place), 2e-3 * direct_ppfd(both, place));
    mean += direct_ppfd(alone, place) / 32;
  }
  EXPECT_NEAR(one.mean_ppfd.value, mean, 2e-3 * mean);
  EXPECT_GT(one.mean_ppfd.expanded, 0);
  // Walls that send light back only add to it.
  const Restated tent = Elsewhere(w, white_tent({2, 1}), floor).at({}, 0.5);
  for (std::size_t i = 0; i < floor.stations.size(); ++i) EXPECT_GT(tent.ppfd[i], one.ppfd[i]);
}
