#include "optics_trial.h"

#include <cmath>

#include "core/optics/room_light.h"

namespace sunbreak::tracer {
namespace {

constexpr int batch = 20'000, most_paths = 6'000'000, dense = 60;

/// Batches pooled until the standard error is small enough beside the whole light at the place.
Estimate pooled(const Scene& scene, const Vec3& place, double direct, double noise, Random& random) {
  double sum = 0, squares = 0;
  int batches = 0;
  for (;;) {
    const Estimate e = reflected_at(scene.room, scene.emitters, place, batch, random);
    ++batches;
    sum += e.value;
    squares += e.standard_error * e.standard_error;
    const Estimate all{sum / batches, std::sqrt(squares) / batches};
    if (all.standard_error <= noise * (direct + all.value) || batches * batch >= most_paths) return all;
  }
}

}  // namespace

Trial try_scene(const Scene& scene, double noise, int photons, Random& random) {
  const RoomLight light(scene.room);
  const auto probes = probe_stations(scene.room);
  const Prediction p = light.predict(scene.emitters, light.stations(probes));
  Trial trial;
  for (std::size_t i = 0; i < probes.size(); ++i) {
    const Estimate traced = pooled(scene, probes[i], p.direct[i], noise, random);
    const double whole = p.direct[i] + traced.value, off = (p.reflected[i] - traced.value) / whole;
    if (std::abs(off) >= std::abs(trial.worst_station))
      trial.worst_station = off, trial.noise = traced.standard_error / whole;
  }
  std::vector<Vec3> floor;
  for (int j = 0; j < dense; ++j)
    for (int i = 0; i < dense; ++i)
      floor.push_back({(i + 0.5) * scene.room.width_m / dense, (j + 0.5) * scene.room.depth_m / dense, 0});
  const Prediction everywhere = light.predict(scene.emitters, light.stations(floor));
  double mean = 0;
  for (std::size_t i = 0; i < floor.size(); ++i)
    mean += (everywhere.direct[i] + everywhere.reflected[i]) / static_cast<double>(floor.size());
  trial.mean = mean / floor_mean(scene.room, scene.emitters, photons, random).value - 1;
  return trial;
}

}  // namespace sunbreak::tracer
