#include "core/optics/sampling_advice.h"

#include <algorithm>

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

}  // namespace sunbreak
