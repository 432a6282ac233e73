#include "lineup/simulated_line_up.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>

#include "core/figures/sweep_figures.h"
#include "core/optics/fixture_shapes.h"
#include "core/optics/room_lights.h"
#include "core/sweep/field.h"
#include "evaluation/rig_model.h"
#include "record/plan_grid.h"

namespace sunbreak::trial {

/// Each station lies in the middle of one of them.
constexpr int fine_cells = 36;

/// A room with what predicting its floor takes, made once.
struct KnownRoom {
  explicit KnownRoom(const Room& room)
      : light(room),
        fine(lay_out({room.width_m, room.depth_m}, Grid{GridKind::Cells, fine_cells, fine_cells, 0, 0, {}}).value()),
        factors([&] {
          std::vector<Vec3> places;
          for (const Station& s : fine.stations) places.push_back({s.x_m, s.y_m, 0});
          return light.stations(places);
        }()) {}
  RoomLight light;
  Layout fine;
  StationFactors factors;
};

namespace {

using record::Id;

// As they are stated, one standard deviation each.
constexpr double calibration_pct = 2.0, spectral_pct = 1.0, cosine_pct = 0.8, wall_pct = 1.0;
constexpr double height_sd_m = 0.003, place_sd_m = 0.003, edge_sd_m = 0.002, noise = 0.006, drift_sd = 0.004;
constexpr int cells = 12;

double between(NormalDeviates& draw, double low, double high) { return low + (high - low) * draw.uniform(); }

struct Shape {
  std::vector<Emitter> emitters;
  double width_m, depth_m;
  int across, deep;
};

/// Emitters that give 1 µmol/s in all.
Shape shape(NormalDeviates& draw) {
  switch (static_cast<int>(3 * draw.uniform())) {
    case 0: {
      const double side = between(draw, 0.3, 0.6);
      return {board(side, side, 10, 10, 1), side, side, 10, 10};
    }
    case 1: {
      const double width = between(draw, 0.5, 0.8);
      return {bars(5, width, width, 12, 1), width, width, 5, 12};
    }
    default: {
      const double exponent = between(draw, 1.1, 1.6), side = between(draw, 0.35, 0.5);
      return {board(side, side, 8, 8, 1, exponent), side, side, 8, 8};
    }
  }
}

double beside_middle(const LineUpBench& b, double x_m, double y_m) {
  const double u = 2 * x_m / b.bench.width_m - 1, v = 2 * y_m / b.bench.depth_m - 1;
  return 1.5 * (u * u + v * v) - 1;
}

std::vector<Vec3> places_of(const Layout& layout) {
  std::vector<Vec3> places;
  for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
  return places;
}

/// Rooms stay known: there are four.
std::shared_ptr<const KnownRoom> known_room(const record::Bench& bench) {
  static std::mutex making;
  static std::map<std::pair<double, std::string>, std::shared_ptr<const KnownRoom>> rooms;
  const std::lock_guard hold(making);
  auto& known = rooms[{bench.width_m, bench.wall_left}];
  if (!known) known = std::make_shared<KnownRoom>(evaluation::room_of(bench));
  return known;
}

/// Light on the fine cells for 1 µmol/s.
std::vector<double> floor_light(const LineUpBench& b, const std::vector<Emitter>& emitters, double height_m) {
  const Prediction p =
      b.known->light.predict(placed(emitters, {b.bench.width_m / 2, b.bench.depth_m / 2, height_m}), b.known->factors);
  std::vector<double> light(b.known->fine.stations.size());
  for (std::size_t i = 0; i < light.size(); ++i) light[i] = p.direct[i] + p.reflected[i];
  return light;
}

/// Mean over the floor and lowest of the stations for a bend, for 1 µmol/s.
std::pair<double, double> mean_and_lowest(const LineUpBench& b, const Layout& stations,
                                          const std::vector<double>& there, const Layout& fine,
                                          const std::vector<double>& everywhere, double bend) {
  double mean = 0, lowest = INFINITY;
  for (std::size_t i = 0; i < everywhere.size(); ++i)
    mean += everywhere[i] * (1 + bend * beside_middle(b, fine.stations[i].x_m, fine.stations[i].y_m)) /
            static_cast<double>(everywhere.size());
  for (std::size_t i = 0; i < there.size(); ++i)
    lowest =
        std::min(lowest, there[i] * (1 + bend * beside_middle(b, stations.stations[i].x_m, stations.stations[i].y_m)));
  return {mean, lowest};
}

}  // namespace

double TrialFixture::light_factor(double percent) const { return std::pow(percent / 100, dim_power); }
double TrialFixture::watts(double percent) const { return truth.watts * (0.03 + 0.97 * percent / 100); }

LineUpBench line_up_bench(NormalDeviates& draw, bool open) {
  LineUpBench b;
  b.bench.id = 1;
  b.bench.name = "Bench";
  b.bench.width_m = b.bench.depth_m = draw.uniform() < 0.5 ? 1.0 : 1.2;
  b.bench.height_m = 2;
  const std::string walls = open || draw.uniform() < 0.5 ? "open" : "reflective";
  b.bench.wall_left = b.bench.wall_right = b.bench.wall_front = b.bench.wall_back = walls;
  b.room = evaluation::room_of(b.bench);
  b.known = known_room(b.bench);
  b.height_m = std::round(100 * between(draw, 0.35, 0.55)) / 100;
  b.meters = {{1, "quantum", "Q", "2026-01-10", 1, 0, calibration_pct, 4000.0, 0.03, 0.02, "", false, 1},
              {2, "wall", "W", "2026-01-10", 1, 0, wall_pct, 3680.0, std::nullopt, std::nullopt, "", false, 1}};
  b.sensor = (1 + calibration_pct / 100 * draw()) * (1 + spectral_pct / 100 * draw());
  b.cosine = cosine_pct / 100 * draw();
  b.wall = 1 + wall_pct / 100 * draw();
  b.edge_x_m = edge_sd_m * draw(), b.edge_y_m = edge_sd_m * draw();
  return b;
}

TrialFixture trial_fixture(const LineUpBench& b, const WantedFixture& wanted, int number, NormalDeviates& draw,
                           Walks walks, bool with_stair) {
  TrialFixture f;
  const Shape s = shape(draw);
  f.emitters = s.emitters;
  record::TestRecord& r = f.record;
  r.test.id = r.fixture.id = 1;
  r.test.fixture_id = r.test.bench_id = 1;
  r.test.name = "fixture " + std::to_string(number);
  r.fixture.name = r.test.name;
  r.fixture.emitters = "LED";
  r.fixture.width_m = s.width_m, r.fixture.depth_m = s.depth_m;
  r.fixture.emitters_across = s.across, r.fixture.emitters_deep = s.deep;
  r.bench = b.bench, r.meters = b.meters;
  r.test.sensor_id = 1, r.test.wall_meter_id = 2;
  r.test.columns = r.test.rows = cells;
  r.test.reference_every = 0;
  r.test.opening_probe = false;
  r.test.tested_on = "2026-03-14";
  r.test.door = "closed";
  r.test.datum = "diodes";
  r.test.checked_level = r.test.checked_center = "yes";
  r.test.height_uncertainty_m = height_sd_m, r.test.position_uncertainty_m = place_sd_m;
  r.test.edge_uncertainty_m = edge_sd_m;
  r.test.spectral_uncertainty_pct = spectral_pct, r.test.cosine_uncertainty_pct = cosine_pct;
  const Layout stations = lay_out({b.bench.width_m, b.bench.depth_m}, record::grid_of(r.test)).value();
  const auto everywhere = floor_light(b, f.emitters, b.height_m);
  const Field exact(b.known->fine, everywhere);
  std::vector<double> there;
  for (const Station& station : stations.stations) there.push_back(exact.at(station.x_m, station.y_m));
  const auto figures_at = [&](double bend) {
    return mean_and_lowest(b, stations, there, b.known->fine, everywhere, bend);
  };
  if (wanted.lowest_over_mean) {
    double low = -0.4, high = 0.6;
    for (int i = 0; i < 60; ++i) {
      const double middle = (low + high) / 2;
      const auto [mean, lowest] = figures_at(middle);
      (lowest / mean < *wanted.lowest_over_mean ? low : high) = middle;
    }
    f.bend = (low + high) / 2;
  }
  const auto [unit_mean, unit_lowest] = figures_at(f.bend);
  f.truth.mean_ppfd = wanted.mean_ppfd.value_or(between(draw, 300, 800));
  f.truth.lowest_over_mean = unit_lowest / unit_mean;
  f.ppf_umol_s = f.truth.mean_ppfd / unit_mean;
  const double area = (b.bench.width_m + b.edge_x_m) * (b.bench.depth_m + b.edge_y_m);
  f.truth.canopy_efficacy = wanted.canopy_efficacy.value_or(between(draw, 1.4, 2.4));
  f.truth.watts = f.truth.mean_ppfd * area / f.truth.canopy_efficacy;
  f.dim_power = between(draw, 0.9, 1.1);
  const std::vector<double> heights = walks == Walks::OneHeight
                                          ? std::vector{b.height_m}
                                          : std::vector{b.height_m + 0.2, b.height_m, b.height_m - 0.12};
  r.stops = {{1, 1, 100}};
  Id reading = 0;
  for (std::size_t k = 0; k < heights.size(); ++k) {
    const Id id = static_cast<Id>(k + 1);
    r.rungs.push_back({id, 1, heights[k]});
    record::Sweep sweep{id, 1, id, 1, "cells", cells, cells};
    sweep.power_w = f.truth.watts * b.wall * (1 + 0.001 * draw());
    r.sweeps.push_back(sweep);
    std::vector<Vec3> places = places_of(stations);
    for (Vec3& p : places) p.x += place_sd_m * draw(), p.y += place_sd_m * draw();
    const auto floor = floor_light(b, f.emitters, heights[k] + height_sd_m * draw());
    const Field light(b.known->fine, floor);
    const double drift = drift_sd * draw(), farthest = std::hypot(b.bench.width_m, b.bench.depth_m) / 2;
    for (std::size_t i = 0; i < places.size(); ++i) {
      const double bent = light.at(places[i].x, places[i].y) * f.ppf_umol_s *
                          (1 + f.bend * beside_middle(b, places[i].x, places[i].y)),
                   low_angle =
                       std::hypot(places[i].x - b.bench.width_m / 2, places[i].y - b.bench.depth_m / 2) / farthest,
                   walked = static_cast<double>(i) / static_cast<double>(places.size() - 1);
      const double raw = bent * b.sensor * (1 + b.cosine * low_angle) * (1 + drift * walked) * (1 + noise * draw());
      r.readings.push_back({++reading, id, static_cast<int>(i), raw, "typed", ""});
      r.placements.push_back({reading, id, static_cast<int>(i), reading});
    }
  }
  if (!with_stair) return f;
  Id stair_reading = 0;
  for (const double percent : {100.0, 75.0, 50.0, 25.0}) {
    const Id id = static_cast<Id>(r.stair_stops.size() + 1);
    r.stair_stops.push_back({id, 1, percent, f.watts(percent) * b.wall * (1 + 0.001 * draw()), {}, ""});
    for (const int station : {65, 78})
      r.stair_readings.push_back(
          {++stair_reading, id, station, 400 * f.light_factor(percent) * (1 + 0.002 * draw()), "typed"});
  }
  return f;
}

std::vector<double> true_light(const TrialFixture& f, const Room& room, double height_m, const Layout& layout) {
  const Prediction p = light_of(room)->predict_once(
      placed(f.emitters, {room.width_m / 2, room.depth_m / 2, height_m}, f.ppf_umol_s), places_of(layout));
  std::vector<double> light(layout.stations.size());
  for (std::size_t i = 0; i < light.size(); ++i) light[i] = p.direct[i] + p.reflected[i];
  return light;
}

}  // namespace sunbreak::trial
