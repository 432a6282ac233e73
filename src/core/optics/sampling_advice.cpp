#include "core/optics/sampling_advice.h"

#include <algorithm>
#include <cmath>

#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr int dense = 96;

struct Summary {
  double mean = 0, lowest = 0;
};

Summary summary(const RoomLight& room, std::span<const Emitter> emitters, const std::vector<Vec3>& places,
                std::span<const double> weights) {
  const Prediction p = room.predict(emitters, room.stations(places));
  Summary s{0, p.direct[0] + p.reflected[0]};
  for (std::size_t i = 0; i < places.size(); ++i) {
    s.mean += weights[i] * (p.direct[i] + p.reflected[i]);
    s.lowest = std::min(s.lowest, p.direct[i] + p.reflected[i]);
  }
  return s;
}

}  // namespace

SamplingAdvice sampling_advice(const RoomLight& room, std::span<const Emitter> emitters, const Grid& grid) {
  const Layout layout = lay_out({room.room().width_m, room.room().depth_m}, grid).value();
  std::vector<Vec3> places, dense_places;
  std::vector<double> weights;
  for (const Station& s : layout.stations) {
    places.push_back({s.x_m, s.y_m, 0});
    weights.push_back(s.weight);
  }
  const Rectangle& area = layout.measured;
  for (int j = 0; j < dense; ++j)
    for (int i = 0; i < dense; ++i)
      dense_places.push_back(
          {area.left_m + (i + 0.5) * area.width_m / dense, area.front_m + (j + 0.5) * area.depth_m / dense, 0});
  const std::vector<double> even(dense_places.size(), 1.0 / static_cast<double>(dense_places.size()));
  const Summary grid_says = summary(room, emitters, places, weights),
                truth = summary(room, emitters, dense_places, even);
  return {grid_says.mean / truth.mean - 1, grid_says.lowest / truth.lowest - 1};
}

StationsNeeded stations_for_mean(const RoomLight& room, std::span<const Emitter> emitters, double tolerance) {
  constexpr int samples = 60, most = 24;
  const Footprint footprint{room.room().width_m, room.room().depth_m};
  const Layout fine = lay_out(footprint, {GridKind::Cells, samples, samples, 0, 0, {}}).value();
  std::vector<Vec3> places;
  for (const Station& s : fine.stations) places.push_back({s.x_m, s.y_m, 0});
  const Prediction p = room.predict_once(emitters, places);
  std::vector<double> ppfd;
  double truth = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    ppfd.push_back(p.direct[i] + p.reflected[i]);
    truth += ppfd.back() / static_cast<double>(places.size());
  }
  const Field field(fine, ppfd);
  const double shorter = std::min(footprint.width_m, footprint.depth_m);
  const auto cells = [&](int along_shorter) {
    StationsNeeded n;
    n.columns = std::max(1, static_cast<int>(std::lround(along_shorter * footprint.width_m / shorter)));
    n.rows = std::max(1, static_cast<int>(std::lround(along_shorter * footprint.depth_m / shorter)));
    double sum = 0;
    for (int j = 0; j < n.rows; ++j)
      for (int i = 0; i < n.columns; ++i)
        sum += field.at((i + 0.5) * footprint.width_m / n.columns, (j + 0.5) * footprint.depth_m / n.rows);
    n.mean_error = sum / (n.columns * n.rows) / truth - 1;
    return n;
  };
  StationsNeeded best = cells(most);
  for (int n = most - 1; n >= 2; --n) {
    const StationsNeeded fewer = cells(n);
    if (std::abs(fewer.mean_error) > tolerance) break;
    best = fewer;
  }
  return best;
}

}  // namespace sunbreak
