#include "core/optics/room_light.h"

#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>
#include <cmath>
#include <numbers>
#include <numeric>

#include "core/optics/direct_kernel.h"
#include "core/optics/direct_light.h"
#include "core/optics/form_factor.h"
#include "core/optics/form_factor_kernel.h"
#include "core/optics/sampling_advice.h"
#include "core/optics/smooth_plane.h"
#include "core/processor.h"
#include "optics_trial.h"
#include "scenes.h"

using namespace sunbreak;

namespace {

double flux(const std::vector<Emitter>& emitters) {
  return std::accumulate(emitters.begin(), emitters.end(), 0.0,
                         [](double sum, const Emitter& e) { return sum + e.ppf_umol_s; });
}

std::vector<double> whole(const Prediction& p) {
  std::vector<double> sum;
  for (std::size_t i = 0; i < p.direct.size(); ++i) sum.push_back(p.direct[i] + p.reflected[i]);
  return sum;
}

Emitter any_emitter() {
  const auto between = [](int low, int high) { return *rc::gen::inRange(low, high) / 100.0; };
  const double tilt = between(-40, 40), turn = between(0, 628), s = std::sin(tilt);
  return {{between(5, 115), between(5, 85), between(20, 150)},
          {s * std::cos(turn), s * std::sin(turn), -std::cos(tilt)},
          between(1, 10000),
          between(50, 400)};
}

const Room lined{1.2, 0.9, 1.8, {0.8, 0.6, 0.7, 0.75, 0.5, 0.2}};

}  // namespace

TEST(DirectLight, FarAwayFallsWithTheSquareOfHeight) {
  const auto lamp = [](double h) { return placed(board(0.2, 0.2, 6, 6, 100), {0, 0, h}); };
  EXPECT_NEAR(direct_ppfd(lamp(8), {}) / direct_ppfd(lamp(4), {}), 0.25, 0.0005);
  const Emitter spot{{0, 0, 0.5}, straight_down, 100, 1};
  EXPECT_NEAR(direct_ppfd({&spot, 1}, {}), 100 / std::numbers::pi / 0.25, 1e-9);
}

TEST(DirectLight, UnderAUniformDisc) {
  // E = M R² / (R² + h²) on the axis, M the flux per area of the source.
  const double radius = 0.3, height = 0.25, total = 500;
  std::vector<Emitter> source;
  const int rings = 120, around = 240;
  for (int r = 0; r < rings; ++r)
    for (int k = 0; k < around; ++k) {
      const double at = radius * std::sqrt((r + 0.5) / rings), angle = 2 * std::numbers::pi * k / around;
      source.push_back(
          {{at * std::cos(angle), at * std::sin(angle), height}, straight_down, total / (rings * around), 1});
    }
  const double exitance = total / (std::numbers::pi * radius * radius);
  EXPECT_NEAR(direct_ppfd(source, {}) / (exitance * radius * radius / (radius * radius + height * height)), 1, 1e-4);
}

TEST(DirectLight, UnderTheCornerOfAUniformRectangle) {
  const double a = 0.6, b = 0.4, h = 0.3, total = 240;
  const int n = 200;
  std::vector<Emitter> source;
  for (int j = 0; j < n; ++j)
    for (int i = 0; i < n; ++i)
      source.push_back({{a * (i + 0.5) / n, b * (j + 0.5) / n, h}, straight_down, total / (n * n), 1});
  const double x = a / h, y = b / h;
  const double factor = (x / std::sqrt(1 + x * x) * std::atan(y / std::sqrt(1 + x * x)) +
                         y / std::sqrt(1 + y * y) * std::atan(x / std::sqrt(1 + y * y))) /
                        (2 * std::numbers::pi);
  EXPECT_NEAR(direct_ppfd(source, {}) / (total / (a * b) * factor), 1, 1e-4);
}

TEST(DirectLight, TheBackOfAnEmitterIsDark) {
  const Emitter up{{0, 0, 0.5}, straight_up, 100, 1};
  EXPECT_EQ(direct_ppfd({&up, 1}, {0.1, 0, 0}), 0);
  const Emitter below{{0, 0, -0.5}, straight_up, 100, 1};
  EXPECT_EQ(direct_ppfd({&below, 1}, {0, 0, 0}), 0) << "light from under a station that faces up";
}

RC_GTEST_PROP(DirectLight, TheFastSumIsTheSum, ()) {
  std::vector<Emitter> emitters;
  for (int i = 0; i < 5; ++i) emitters.push_back(any_emitter());
  emitters[0].exponent = 1;
  emitters[1].exponent = 2;
  FacingPlaces places;
  for (int i = 0; i < 33; ++i) places.add({*rc::gen::inRange(0, 120) / 100.0, *rc::gen::inRange(0, 90) / 100.0, 0});
  std::vector<double> fast(places.size(), 0);
  add_direct_ppfd(emitters, places, fast);
  for (std::size_t i = 0; i < fast.size(); ++i) {
    const double plain = direct_ppfd(emitters, {places.x_m[i], places.y_m[i], places.z_m[i]});
    RC_ASSERT(std::abs(fast[i] - plain) <= 1e-9 * plain + 1e-9);
  }
}

TEST(DirectLight, BehindAnEmitterIsDarkHoweverWideItsBeam) {
  // Facing along x; the place lies behind it. With an exponent of 0.2 the least cosine would still make light.
  const std::vector<Emitter> wide{{{0.6, 0.45, 0.5}, {1, 0, 0}, 500, 0.2}};
  FacingPlaces places;
  places.add({0.3, 0.45, 0});
  places.add({0.9, 0.45, 0});
  std::vector<double> ppfd(2, 0);
  add_direct_ppfd(wide, places, ppfd);
  EXPECT_EQ(ppfd[0], 0);
  EXPECT_GT(ppfd[1], 10);
}

TEST(FormFactors, OfAClosedBoxAddUpToOne) {
  for (const Vec3 place : {Vec3{0.02, 0.3, 0}, {0.6, 0.45, 0}, {1.19, 0.89, 0}}) {
    double sum = 0;
    for (const Face& face : faces) {
      if (face == Face{2, false}) continue;
      PatchGrid grid{face, face.high ? size_along(lined, face.axis) : 0, {}, {}};
      for (int i = 0; i <= 7; ++i) {
        grid.u_edges_m.push_back(size_along(lined, grid.u_axis()) * i / 7);
        grid.v_edges_m.push_back(size_along(lined, grid.v_axis()) * i * i / 49);
      }
      std::vector<double> factors(grid.size(), 0);
      add_form_factors(place, 2, true, grid, 1, factors);
      for (const double f : factors) {
        EXPECT_GE(f, -1e-12);
        sum += f;
      }
    }
    EXPECT_NEAR(sum, 1, 1e-9) << place.x;
  }
}

TEST(FormFactors, LookTheSameFromEverySide) {
  // A cube: the factor from the middle of one side to the opposite one does not depend on which side it is.
  for (const Face& from : faces) {
    const Face to{from.axis, !from.high};
    PatchGrid grid{to, to.high ? 1.0 : 0.0, {0, 0.5, 1}, {0, 0.5, 1}};
    double at[3] = {0.5, 0.5, 0.5};
    at[from.axis] = from.high ? 1 : 0;
    std::vector<double> factors(4, 0);
    add_form_factors({at[0], at[1], at[2]}, from.axis, !from.high, grid, 1, factors);
    EXPECT_NEAR(std::accumulate(factors.begin(), factors.end(), 0.0), 0.239, 0.001);
    for (const Face& beside : faces) {
      if (beside.axis == from.axis) continue;
      PatchGrid wall{beside, beside.high ? 1.0 : 0.0, {0, 0.4, 1}, {0, 0.7, 1}};
      std::vector<double> part(4, 0);
      add_form_factors({at[0], at[1], at[2]}, from.axis, !from.high, wall, 1, part);
      EXPECT_NEAR(std::accumulate(part.begin(), part.end(), 0.0), (1 - 0.2395) / 4, 0.001);
    }
  }
}

TEST(RoomLight, AClosedBoxAbsorbsWhatIsEmitted) {
  for (const double reflectance : {0.2, 0.5, 0.9})
    for (const double height : {0.3, 0.6, 1.2}) {
      const Room room{1.2, 1.2, 2.0, {reflectance, reflectance, reflectance, reflectance, reflectance, reflectance}};
      const auto lamp = placed(bars(6, 1.0, 1.0, 18, 900), {0.6, 0.6, height});
      EXPECT_NEAR(RoomLight(room).absorbed_umol_s(lamp) / flux(lamp), 1, 0.005) << reflectance << " " << height;
    }
}

TEST(DirectLight, EveryCopyOfTheKernelSaysWhatTheDefinitionSays) {
  std::vector<const DirectKernels*> copies{&plain_direct_kernels};
  if (has_wide_vectors()) copies.push_back(&wide_direct_kernels);
  if (has_widest_vectors()) copies.push_back(&widest_direct_kernels);
  const Vec3 way{0.1, -0.2, -std::sqrt(1 - 0.05)};
  FacingPlaces places;
  for (int i = 0; i < 531; ++i) places.add({0.0023 * i, 1.2 - 0.002 * i, 0.0004 * i});
  const RoughPlaces rough(places);
  for (const double exponent : {0.7, 1.0, 2.0, 2.6, 40.0}) {
    const Emitter e{{0.5, 0.6, 0.45}, way, 300, exponent};
    const DirectKernel kernel{
        0.5, 0.6, 0.45, way.x, way.y, way.z, 0, 0, 1, 300 * (exponent + 1) / (2 * std::numbers::pi), exponent};
    for (const DirectKernels* copy : copies) {
      std::vector<double> exact(places.size(), 0);
      std::vector<float> single(places.size(), 0);
      copy->exact(kernel, places.x_m.data(), places.y_m.data(), places.z_m.data(), exact.data(), exact.size());
      copy->single(kernel, rough.x_m.data(), rough.y_m.data(), rough.z_m.data(), single.data(), single.size());
      for (std::size_t i = 0; i < places.size(); ++i) {
        const double truth = direct_ppfd({&e, 1}, {places.x_m[i], places.y_m[i], places.z_m[i]});
        EXPECT_NEAR(exact[i], truth, 1e-11 * truth) << exponent << " " << i;
        EXPECT_NEAR(static_cast<double>(single[i]), truth, 1e-4 * truth + 1e-6) << exponent << " " << i;
      }
    }
  }
}

TEST(FormFactors, EveryCopyOfTheKernelSaysWhatTheDefinitionSays) {
  std::vector<const CornerPrimitives*> copies{&plain_corner_primitives};
  if (has_wide_vectors()) copies.push_back(&wide_corner_primitives);
  if (has_widest_vectors()) copies.push_back(&widest_corner_primitives);
  std::vector<double> along{0,   -0.0, 1e-9, -1e-9, 0.4142135623730951, 0.4142135623730950, 1, -1, 2.414213562373095,
                            1e3, -1e3};
  for (int i = -40; i <= 40; ++i) along.push_back(0.031 * i * std::abs(i));
  const double turn = 2 * std::numbers::pi;
  for (const double distance : {1e-5, 0.01, 0.3, 1.0, 4.0})
    for (const double across : {0.0, 1e-7, -0.2, 0.4142135623730951, 1.0, -3.0, 50.0}) {
      const CornerLine line{along.data(), along.size(), across, distance};
      for (const CornerPrimitives* copy : copies) {
        std::vector<double> parallel(along.size()), away(along.size()), beside(along.size());
        copy->parallel(line, parallel.data());
        copy->away(line, away.data());
        copy->beside(line, beside.data());
        for (std::size_t i = 0; i < along.size(); ++i) {
          const double x = along[i], a = std::hypot(distance, x), b = std::hypot(distance, across);
          const auto expect = [&](double found, double truth) {
            EXPECT_NEAR(found, truth, 2e-15 * std::abs(truth)) << distance << " " << across << " " << x;
          };
          expect(away[i], -distance / turn * std::atan(across / a) / a);
          expect(beside[i], -distance / turn * std::atan(x / b) / b);
          expect(parallel[i], (x / a * std::atan(across / a) + across / b * std::atan(x / b)) / turn);
        }
      }
    }
}

TEST(RoomLight, WithoutReflectanceThereIsDirectLightOnly) {
  const RoomLight dark(Room{1.2, 1.2, 2.0, {}});
  const std::vector<Vec3> places{{0.6, 0.6, 0}, {0.02, 0.02, 0}};
  const auto lamp = placed(board(0.3, 0.3, 4, 4, 300), {0.6, 0.6, 0.5});
  const Prediction p = dark.predict(lamp, dark.stations(places));
  for (std::size_t i = 0; i < places.size(); ++i) {
    EXPECT_EQ(p.reflected[i], 0);
    EXPECT_NEAR(p.direct[i], direct_ppfd(lamp, places[i]), 2e-6 * p.direct[i]);
  }
}

TEST(RoomLight, AMirroredRoomGivesAMirroredField) {
  Room mirrored = lined;
  std::swap(mirrored.reflectance.left, mirrored.reflectance.right);
  auto lamp = placed(tilted(board(0.3, 0.2, 5, 4, 300, 1.6), 8, 0), {0.4, 0.3, 0.6});
  const std::vector<Vec3> places{{0.1, 0.2, 0}, {0.5, 0.5, 0}, {1.18, 0.88, 0}};
  std::vector<Vec3> mirrored_places;
  for (const Vec3& p : places) mirrored_places.push_back({1.2 - p.x, p.y, p.z});
  auto mirrored_lamp = lamp;
  for (Emitter& e : mirrored_lamp) e.place_m.x = 1.2 - e.place_m.x, e.direction.x = -e.direction.x;
  const RoomLight a(lined), b(mirrored);
  const auto left = whole(a.predict(lamp, a.stations(places))),
             right = whole(b.predict(mirrored_lamp, b.stations(mirrored_places)));
  for (std::size_t i = 0; i < left.size(); ++i) EXPECT_NEAR(left[i], right[i], 1e-4 * left[i]);
}

TEST(RoomLight, LightOfTwoLampsAddsUp) {
  const RoomLight room(lined);
  const std::vector<Vec3> places{{0.1, 0.2, 0}, {0.6, 0.5, 0}};
  const auto factors = room.stations(places);
  const auto one = placed(board(0.3, 0.2, 5, 4, 300, 1.6), {0.4, 0.3, 0.6}),
             two = placed(disc(0.1, 4, 150), {0.9, 0.6, 0.4});
  const auto a = whole(room.predict(one, factors)), b = whole(room.predict(two, factors)),
             both = whole(room.predict(joined(one, two), factors));
  for (std::size_t i = 0; i < places.size(); ++i) EXPECT_NEAR(a[i] + b[i], both[i], 1e-4 * both[i]);
}

TEST(RoomLight, AgreesWithFollowedPhotons) {
  tracer::Random random(5);
  const auto all = tracer::scenes();
  for (const std::size_t i : {std::size_t{22}, all.size() / 2 + 7, all.size() - 9}) {
    const tracer::Trial trial = tracer::try_scene(all[i], 0.004, 300'000, random);
    EXPECT_LE(std::abs(trial.worst_station), 0.02) << all[i].name << ", noise " << trial.noise;
    EXPECT_LE(std::abs(trial.mean), 0.005 + 0.003) << all[i].name;
  }
}

TEST(SmoothPlane, IsExactForCubics) {
  const auto cubic = [](double x, double y) { return 1 + x - 2 * y + x * y * y - 3 * x * x * x + y * y * y; };
  const SmoothPlane plane(-1, 2, 0, 3, 9, cubic);
  for (const double x : {-1.0, -0.37, 0.0, 1.234, 2.0})
    for (const double y : {0.0, 0.01, 1.7, 3.0}) EXPECT_NEAR(plane.at(x, y), cubic(x, y), 1e-12);
  const SmoothPlane line(-1, 2, 1, 1, 9, cubic);
  EXPECT_NEAR(line.at(0.3, 1), cubic(0.3, 1), 1e-12) << "a side without extent";
}

TEST(RoomLight, ManyPlacesReadAsEachAlone) {
  for (const double height : {0.15, 0.6})
    for (const double margin : {0.0, 0.05}) {
      Room room = tracer::room_of(1.2, 0.9, 0.9);
      room.reflectance.left = 0.3, room.reflectance.front = 0;
      const auto lamp = placed(bars(6, 0.9, 0.7, 18, 900), {0.62, 0.44, height});
      const RoomLight light(room);
      constexpr int n = 100;
      std::vector<Vec3> places;
      for (int j = 0; j < n; ++j)
        for (int i = 0; i < n; ++i)
          places.push_back({margin + (1.2 - 2 * margin) * i / (n - 1), margin + (0.9 - 2 * margin) * j / (n - 1), 0});
      const auto all = whole(light.predict_once(lamp, places));
      for (std::size_t s = 0; s < places.size(); s += 173) {
        const double alone = whole(light.predict_once(lamp, std::span(&places[s], 1))).front();
        EXPECT_NEAR(all[s], alone, 2e-3 * alone) << places[s].x << ", " << places[s].y;
      }
    }
}

TEST(FixtureShapes, SendWhatTheyAreSaidToSend) {
  for (const auto& fixture :
       {board(0.3, 0.2, 5, 4, 300), bars(6, 1, 1, 18, 300), disc(0.1, 5, 300), reflector_lamp(0.3, 0.2, 300, 1.5),
        pair_of(board(0.2, 0.2, 3, 3, 300), 0.6, 10), tilted(board(0.3, 0.2, 5, 4, 300), 5, -3)}) {
    EXPECT_NEAR(flux(fixture), 300, 1e-9);
    for (const Emitter& e : fixture) EXPECT_NEAR(dot(e.direction, e.direction), 1, 1e-12);
  }
}

TEST(FixtureShapes, APairTurnedInwardCrossesItsLight) {
  const auto pair = pair_of(board(0.1, 0.1, 1, 1, 200), 0.8, 20);
  EXPECT_LT(pair[0].place_m.x, 0);
  EXPECT_GT(pair[0].direction.x, 0) << "the left one looks right";
  EXPECT_LT(pair[1].direction.x, 0);
  EXPECT_LT(tilted(board(0.4, 0.1, 2, 1, 100), 5, 0)[1].place_m.z, 0) << "a roll lowers the right side";
}

TEST(SamplingAdvice, MoreStationsLeaveLessError) {
  const RoomLight room(Room{1.2, 1.2, 2.0, {0.7, 0.7, 0.7, 0.7, 0.6, 0.2}});
  const auto lamp = placed(board(0.2, 0.2, 4, 4, 300, 2), {0.6, 0.6, 0.3});
  const auto few = sampling_advice(room, lamp, {GridKind::Cells, 4, 4, 0, 0, {}}),
             many = sampling_advice(room, lamp, {GridKind::Cells, 24, 24, 0, 0, {}});
  EXPECT_LT(std::abs(many.mean_error), std::abs(few.mean_error));
  EXPECT_LT(std::abs(many.lowest_error), std::abs(few.lowest_error));
  EXPECT_GT(few.lowest_error, 0) << "a coarse grid misses the dark corners";
}
