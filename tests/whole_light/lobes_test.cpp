#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/optics/direct_light.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/hung_fixture.h"
#include "core/optics/lobe_kernel.h"
#include "core/optics/lobe_room.h"
#include "core/optics/room_light.h"
#include "core/processor.h"
#include "core/whole_light/fit_parameters.h"

using namespace sunbreak;

namespace {

LobeFlux only(std::size_t lobe, double flux = 1) {
  LobeFlux all{};
  all[lobe] = flux;
  return all;
}

/// Places on the floor and on a wall, lit from above and aside.
FacingPlaces some_places() {
  FacingPlaces places;
  for (int i = 0; i < 101; ++i) places.add({0.03 * i, 0.9 - 0.02 * i, 0.01 * (i % 5)});
  return places;
}

}  // namespace

TEST(Lobes, EachSendsOneMicromolePerSecond) {
  for (std::size_t k = 0; k < lobe_count; ++k) {
    constexpr int steps = 200;
    double flux = 0;
    for (int i = 0; i < steps; ++i)
      for (int j = 0; j < 64; ++j) {
        const double theta = (i + 0.5) * std::numbers::pi / 2 / steps, phi = (j + 0.5) * 2 * std::numbers::pi / 64;
        flux += intensity(only(k), theta, phi) * std::sin(theta) * (std::numbers::pi / 2 / steps) *
                (2 * std::numbers::pi / 64);
      }
    EXPECT_NEAR(flux, 1, 2e-3) << k;
  }
}

TEST(Lobes, TheHalfAngleOfACosineIsSixtyDegrees) {
  EXPECT_NEAR(half_angle_deg(only(0)), 60, 0.01);
  EXPECT_NEAR(half_angle_deg(only(3)), std::acos(std::pow(0.5, 1.0 / 5)) * 180 / std::numbers::pi, 0.05);
}

TEST(Lobes, EveryCopyOfTheKernelSaysWhatTheDefinitionSays) {
  const LobeSource source{{0.4, 0.5, 0.7}, {0.1, -0.05, -std::sqrt(1 - 0.1 * 0.1 - 0.05 * 0.05)}, {1, 0, 0}, {0, 1, 0}};
  // Axes at right angles to the leaning one.
  LobeSource lean = source;
  const Vec3 a = lean.axis;
  const double n = std::sqrt(a.z * a.z + a.x * a.x);
  lean.along = {-a.z / n, 0, a.x / n};
  lean.across = {a.y * lean.along.z - a.z * lean.along.y, a.z * lean.along.x - a.x * lean.along.z,
                 a.x * lean.along.y - a.y * lean.along.x};
  const FacingPlaces places = some_places();
  ASSERT_GT(places.size(), 64u) << "the kernels take places in blocks, the last of them a part of one";
  const LitPlaces lit{places.x_m.data(), places.y_m.data(), places.z_m.data(), places.size(), places.normal};
  const LobeSource straight{{0.1, 0.8, 0.9}};
  const std::vector<LobeSource> both{lean, straight};
  std::vector<const LobeKernels*> copies{&plain_lobe_kernels};
  if (has_wide_vectors()) copies.push_back(&wide_lobe_kernels);
  if (has_widest_vectors()) copies.push_back(&widest_lobe_kernels);
  LobeFlux mix{};
  std::vector<double> weights;
  for (std::size_t k = 0; k < lobe_count; ++k) {
    mix[k] = 1.0 + static_cast<double>(k % 5);
    weights.push_back(mix[k] * lobe_peak(lobes[k]));
  }
  for (const LobeKernels* copy : copies) {
    std::vector<double> sums(lobe_count * places.size(), 0), mixed(places.size(), 0);
    copy->lobes(both, lit, sums.data());
    copy->mixed(both, lit, weights.data(), mixed.data());
    for (std::size_t i = 0; i < places.size(); ++i) {
      const auto light_of = [&](const LobeSource& s, std::size_t k) {
        const Vec3 to = Vec3{places.x_m[i], places.y_m[i], places.z_m[i]} - s.place_m;
        const double d2 = dot(to, to), d = std::sqrt(d2), arriving = -to.z / d;
        const double theta = std::acos(dot(to, s.axis) / d), phi = std::atan2(dot(to, s.across), dot(to, s.along));
        return intensity(only(k), theta, phi) * arriving / d2;
      };
      double all = 0;
      for (std::size_t k = 0; k < lobe_count; ++k) {
        const double expected = light_of(lean, k) + light_of(straight, k);
        EXPECT_NEAR(sums[k * places.size() + i] * lobe_peak(lobes[k]), expected, 1e-9 * (1 + expected)) << k;
        all += mix[k] * expected;
      }
      EXPECT_NEAR(mixed[i], all, 1e-5 * all);
    }
  }
}

/// In single precision, too, a beam of a single lobe is right to 1e-5 of its light, wherever that is a thousandth of
/// the brightest or more; farther aside to as little of the brightest.
TEST(Lobes, AMixOfOneIsRightForEveryProcessorHoweverNarrow) {
  FacingPlaces places;
  for (int i = 0; i < 700; ++i) places.add({0.4 + 0.003 * i, 0.5 - 0.001 * (i % 97), 0.2 * (i % 3)});
  const LitPlaces lit{places.x_m.data(), places.y_m.data(), places.z_m.data(), places.size(), places.normal};
  const LobeSource source{{0.41, 0.47, 0.75}};
  std::vector<const LobeKernels*> copies{&plain_lobe_kernels};
  if (has_wide_vectors()) copies.push_back(&wide_lobe_kernels);
  if (has_widest_vectors()) copies.push_back(&widest_lobe_kernels);
  for (const LobeKernels* copy : copies) {
    std::vector<double> by_lobe(lobe_count * places.size(), 0);
    copy->lobes({&source, 1}, lit, by_lobe.data());
    for (std::size_t k = 0; k < lobe_count; ++k) {
      LobeFlux weights{};
      weights[k] = 1;
      std::vector<double> mixed(places.size(), 0);
      copy->mixed({&source, 1}, lit, weights.data(), mixed.data());
      const double* const expected = by_lobe.data() + k * places.size();
      const double brightest = *std::max_element(expected, expected + places.size());
      for (std::size_t i = 0; i < places.size(); ++i)
        EXPECT_NEAR(mixed[i], expected[i], 1e-5 * std::max(expected[i], 1e-2 * brightest)) << k << ' ' << i;
    }
  }
}

TEST(LobeRoom, AgreesWithTheFinerModel) {
  const Room room{1.2, 1.2, 2.0, {0.8, 0.75, 0.8, 0.7, 0.7, 0.25}};
  std::vector<Vec3> stations;
  FacingPlaces facing;
  for (int j = 0; j < 4; ++j)
    for (int i = 0; i < 4; ++i) stations.push_back({0.06 + 0.36 * i, 0.06 + 0.36 * j, 0}), facing.add(stations.back());
  const auto lamp = placed(tilted(board(0.5, 0.4, 4, 3, 1, 2), 1.5, -1), {0.63, 0.6, 0.4});
  const Prediction expected = RoomLight(room).predict_once(lamp, stations);
  FixtureOutline outline;
  outline.width_m = 0.5, outline.depth_m = 0.4, outline.across = 4, outline.deep = 3;
  const auto sources = HungFixture(outline).unit(0, {0.03, 0, 0.4, {{1.5, -1}}}, {0.6, 0.6, 0});
  const LobeRoom model(room);
  const auto gathering = model.gathering(stations);
  const auto exchange = model.exchange(room.reflectance);
  const Eigen::VectorXd received = model.received(sources).col(1);
  const Eigen::VectorXd light = direct_by_lobe(sources, facing).col(1) + exchange.reflected(gathering, received);
  const Eigen::VectorXd by_patch = exchange.reflections(gathering).of(received);
  for (Eigen::Index i = 0; i < light.size(); ++i) {
    const auto k = static_cast<std::size_t>(i);
    const double whole = expected.direct[k] + expected.reflected[k];
    EXPECT_NEAR(light(i), whole, 0.004 * whole) << i;
    EXPECT_NEAR(by_patch(i), exchange.reflected(gathering, received)(i), 1e-9 * whole);
  }
}

TEST(LobeRoom, SlopesOfSidesAreDifferencesOfWhatTheyReflect) {
  const Room room{1.0, 1.4, 1.8, {0.8, 0.6, 0.7, 0, 0.5, 0.3}};
  const std::vector<Vec3> stations{{0.2, 0.3, 0}, {0.9, 1.2, 0}, {0.5, 0.7, 0}};
  const auto sources = HungFixture({}).unit(0, {0.1, -0.2, 0.5, {{3, 2}}}, {0.5, 0.7, 0});
  const LobeRoom model(room);
  const auto gathering = model.gathering(stations);
  const Eigen::VectorXd received = model.received(sources).col(2);
  const auto exchange = model.exchange(room.reflectance);
  const Eigen::MatrixXd slopes = exchange.slopes_of_sides(gathering, exchange.reflections(gathering), received);
  ASSERT_EQ(slopes.cols(), 5) << "the side that is open has none";
  constexpr double step = 1e-4;
  for (std::size_t g = 0; g < model.sides().size(); ++g) {
    const auto reflected = [&](double change) {
      Room changed = room;
      set_reflectance(changed.reflectance, model.sides()[g], reflectance_of(room, model.sides()[g]) + change);
      return Eigen::VectorXd(model.exchange(changed.reflectance).reflected(gathering, received));
    };
    const Eigen::VectorXd difference = (reflected(step) - reflected(-step)) / (2 * step);
    for (Eigen::Index i = 0; i < difference.size(); ++i)
      EXPECT_NEAR(slopes(i, static_cast<Eigen::Index>(g)), difference(i), 1e-6 * difference.norm()) << g << ' ' << i;
  }
}
