#include "whole_light/light_bench.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

#include "core/optics/fixture_shapes.h"
#include "core/optics/room_light.h"
#include "core/whole_light/believed_room.h"
#include "core/whole_light/reference_rooms.h"
#include "optics/photon_tracer.h"

namespace sunbreak::trial {
namespace {

using Random = std::mt19937_64;

double between(Random& random, double low, double high) {
  return std::uniform_real_distribution<double>(low, high)(random);
}
int whole(Random& random, int low, int high) { return std::uniform_int_distribution<int>(low, high)(random); }
double normal(Random& random) { return std::normal_distribution<double>()(random); }

/// A beam as a bundle of cosine emitters that share a place: directions and shares.
std::vector<Emitter> bundle(const std::string& beam, Random& random) {
  std::vector<Emitter> rays;
  const auto add = [&](double theta_deg, double phi_deg, double share, double exponent) {
    const double t = theta_deg * std::numbers::pi / 180, p = phi_deg * std::numbers::pi / 180;
    rays.push_back({{}, {std::sin(t) * std::cos(p), std::sin(t) * std::sin(p), -std::cos(t)}, share, exponent});
  };
  if (beam == "wide") {
    const double exponent = between(random, 0.9, 1.6);
    add(0, 0, 1, exponent);
  } else if (beam == "lensed") {
    const double narrow = between(random, 5, 18), part = between(random, 0.6, 0.9);
    add(0, 0, part, narrow);
    add(0, 0, 1 - part, 1.3);
  } else if (beam == "hollow") {
    const double ring = between(random, 25, 40), exponent = between(random, 8, 16);
    for (int k = 0; k < 8; ++k) add(ring, 45.0 * k, 0.1, exponent);
    add(0, 0, 0.2, 2);
  } else if (beam == "two-lobed") {
    const double lean = between(random, 22, 38), exponent = between(random, 5, 10);
    add(lean, 0, 0.35, exponent);
    add(lean, 180, 0.35, exponent);
    add(0, 0, 0.3, 2);
  } else {
    const double fan = between(random, 15, 30), exponent = between(random, 4, 9);
    for (const int k : {-1, 0, 1}) add(std::abs(k) * fan, k < 0 ? 270 : 90, 1.0 / 3, exponent);
  }
  return rays;
}

TrueFixture fixture(const std::string& kind, const std::string& beam, Random& random) {
  TrueFixture f;
  FixtureOutline& o = f.described;
  o.columns = 1;
  std::vector<Emitter> places;
  f.ppf_umol_s = between(random, 200, 900);
  if (kind == "board") {
    o.width_m = between(random, 0.3, 0.6), o.depth_m = between(random, 0.3, 0.6), o.across = 8, o.deep = 8;
    places = board(o.width_m, o.depth_m, 8, 8, 1);
  } else if (kind == "six bars") {
    o.width_m = between(random, 0.8, 1.0), o.depth_m = between(random, 0.8, 1.0), o.across = 6, o.deep = 12;
    places = bars(6, o.width_m, o.depth_m, 12, 1);
  } else if (kind == "round board") {
    const double radius = between(random, 0.12, 0.3);
    o.width_m = o.depth_m = 2 * radius, o.across = o.deep = 8;
    places = disc(radius, 4, 1);
  } else if (kind == "lensed strip") {
    o.width_m = between(random, 0.7, 1.0), o.depth_m = 0.08, o.across = 9, o.deep = 1;
    places = board(o.width_m, 0, 9, 1, 1);
  } else {
    o.columns = 2, o.width_m = 0.28, o.depth_m = 0.32, o.across = 6, o.deep = 7;
    o.spacing_x_m = between(random, 0.4, 0.6);
    places = board(o.width_m, o.depth_m, 6, 7, 1);
  }
  const std::vector<Emitter> rays = bundle(beam, random);
  std::vector<Emitter> one;
  for (const Emitter& place : places)
    for (const Emitter& ray : rays)
      one.push_back({place.place_m, ray.direction, place.ppf_umol_s * ray.ppf_umol_s, ray.exponent});
  const double first = o.columns > 1 ? between(random, 0.46, 0.54) : 1;
  for (int unit = 0; unit < o.columns; ++unit) {
    f.units.push_back(placed(one, {}, f.ppf_umol_s * (unit == 0 ? first : 1 - first)));
    f.middles.push_back({(unit - (o.columns - 1) / 2.0) * o.spacing_x_m, 0, 0});
  }
  return f;
}

/// Light of a lamp at places, by the model or by following photons.
std::vector<double> light_at(const LightBench& bench, const RoomLight* model, const std::vector<Emitter>& lamp,
                             const std::vector<Vec3>& places, Random& random) {
  std::vector<double> light;
  if (model) {
    const Prediction p = model->predict_once(lamp, places);
    for (std::size_t i = 0; i < places.size(); ++i) light.push_back(p.direct[i] + p.reflected[i]);
    return light;
  }
  for (const Vec3& place : places) {
    double value = direct_ppfd(lamp, place);
    if (!bench.open) value += tracer::reflected_at(bench.room, lamp, place, 12000, random).value;
    light.push_back(value);
  }
  return light;
}

double mean_light(const Room& room, bool traced, const std::vector<Emitter>& lamp, Random& random) {
  if (traced) return tracer::floor_mean(room, lamp, 1'500'000, random).value;
  constexpr int cells = 24;
  std::vector<Vec3> places;
  for (int j = 0; j < cells; ++j)
    for (int i = 0; i < cells; ++i)
      places.push_back({(i + 0.5) * room.width_m / cells, (j + 0.5) * room.depth_m / cells, 0});
  const Prediction p = RoomLight(room).predict_once(lamp, places);
  double sum = 0;
  for (std::size_t i = 0; i < places.size(); ++i) sum += p.direct[i] + p.reflected[i];
  return sum / (cells * cells);
}

}  // namespace

std::vector<Emitter> hung_emitters(const TrueFixture& lamp, const TrueHang& hang, const Room& room, double height_m) {
  std::vector<Emitter> all;
  for (std::size_t unit = 0; unit < lamp.units.size(); ++unit) {
    const Hang::Lean lean = unit < hang.leans.size() ? hang.leans[unit] : Hang::Lean{};
    all = joined(all,
                 placed(tilted(lamp.units[unit], lean.roll_deg, lean.pitch_deg),
                        Vec3{room.width_m / 2 + hang.x_m, room.depth_m / 2 + hang.y_m, height_m} + lamp.middles[unit]));
  }
  return all;
}

LightBench light_bench(std::uint64_t seed, int number, bool traced, bool with_truth_elsewhere) {
  std::seed_seq sequence{seed, static_cast<std::uint64_t>(number)};
  Random random(sequence);
  LightBench b;
  b.traced = traced;
  b.fixture = fixture_names[number % 5];
  b.beam = beam_names[(number / 5) % 5];
  b.open = whole(random, 0, 3) == 0;
  const double side = number % 3 == 0 ? 1.5 : 1.2;
  b.room = {side, side, between(random, 1.8, 2.2), {}};
  if (!b.open) {
    const double middle = between(random, 0.35, 0.85);
    const auto wall = [&] { return middle + between(random, -0.05, 0.05); };
    b.room.reflectance = {wall(), wall(), wall(), wall(), between(random, 0.55, 0.85), between(random, 0.1, 0.4)};
  }
  b.lamp = fixture(b.fixture, b.beam, random);
  const double off = between(random, 0, 0.03), way = between(random, 0, 2 * std::numbers::pi);
  b.hang.x_m = off * std::cos(way), b.hang.y_m = off * std::sin(way);
  for (std::size_t unit = 0; unit < b.lamp.units.size(); ++unit) {
    const double lean = between(random, 0, 2), turn = between(random, 0, 2 * std::numbers::pi);
    b.hang.leans.push_back({lean * std::cos(turn), lean * std::sin(turn)});
  }
  const int heights = traced ? 1 + number % 3 : 1 + (number / 2) % 6;
  const double lowest = between(random, 0.2, 0.35), apart = between(random, 0.1, 0.18);
  for (int h = 0; h < heights; ++h) {
    b.heights_m.push_back(std::round(100 * (lowest + h * apart)) / 100);
    b.true_heights_m.push_back(b.heights_m.back() + between(random, -0.005, 0.005));
  }
  b.noise = between(random, 0.005, 0.015);

  WholeLightQuestion& q = b.question;
  q.room = {b.room.width_m, b.room.depth_m, b.room.height_m, {}};
  const double middle = b.room.reflectance.left;
  const std::string wall = b.open ? "open" : middle > 0.74 ? "reflective" : middle > 0.58 ? "white" : "";
  q.sides = believed_sides({wall, wall, wall, wall});
  q.outline = b.lamp.described;
  q.noise = 0.01;
  const int columns = traced ? whole(random, 6, 8) : whole(random, 6, 12);
  const Layout layout = lay_out({side, side}, Grid{GridKind::Cells, columns, columns, 0, 0, {}}).value();
  const RoomLight model(b.room);
  double squares = 0, count = 0;
  for (int h = 0; h < heights; ++h) {
    FitSweep sweep{b.heights_m[static_cast<std::size_t>(h)], 0, layout, {}};
    std::vector<Vec3> places, labeled;
    for (const Station& s : layout.stations) {
      labeled.push_back({s.x_m, s.y_m, 0});
      places.push_back({s.x_m + between(random, -0.005, 0.005), s.y_m + between(random, -0.005, 0.005), 0});
    }
    const auto lamp = hung_emitters(b.lamp, b.hang, b.room, b.true_heights_m[static_cast<std::size_t>(h)]);
    const auto lamp_as_labeled = hung_emitters(b.lamp, b.hang, b.room, sweep.height_m);
    sweep.ppfd = light_at(b, traced ? nullptr : &model, lamp, places, random);
    const std::vector<double> there = light_at(b, &model, lamp, places, random);
    const std::vector<double> as_labeled = light_at(b, &model, lamp_as_labeled, labeled, random);
    for (std::size_t i = 0; i < there.size(); ++i, ++count)
      squares += std::pow(there[i] / as_labeled[i] - 1, 2) + b.noise * b.noise;
    for (double& ppfd : sweep.ppfd) ppfd *= 1 + b.noise * normal(random);
    q.sweeps.push_back(std::move(sweep));
  }
  b.reading_scatter = std::sqrt(squares / count);
  if (whole(random, 0, 2) == 0) {
    b.odd_sweep = whole(random, 0, heights - 1);
    b.odd_station = whole(random, 0, static_cast<int>(layout.stations.size()) - 1);
    q.sweeps[static_cast<std::size_t>(b.odd_sweep)].ppfd[static_cast<std::size_t>(b.odd_station)] *=
        whole(random, 0, 1) == 0 ? 0.5 : 1.6;
  }
  if (!with_truth_elsewhere) return b;
  for (const double height : b.true_heights_m)
    b.utilization.push_back(mean_light(b.room, traced, hung_emitters(b.lamp, b.hang, b.room, height), random) *
                            b.room.width_m * b.room.depth_m / b.lamp.ppf_umol_s);
  b.other_room = b.open ? white_tent({side, side}) : open_floor({side, side});
  b.other_height_m = b.heights_m[b.heights_m.size() / 2];
  b.other_mean = mean_light(b.other_room, traced, hung_emitters(b.lamp, {}, b.other_room, b.other_height_m), random);
  return b;
}

}  // namespace sunbreak::trial
