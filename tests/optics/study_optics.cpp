#include <fmt/format.h>

#include <cmath>

#include "core/optics/room_light.h"
#include "optics_trial.h"

using namespace sunbreak;

/// The optical model beside the photon tracer over the whole range of rooms, reflectances, fixtures and heights.
int main() {
  tracer::Random random(20261125);
  double worst_station = 0, worst_mean = 0;
  int scenes = 0;
  fmt::print("{:<28}{:>5}{:>7}{:>16}{:>12}{:>10}\n", "scene", "refl", "height", "worst station %", "(± noise)",
             "mean %");
  for (const tracer::Scene& scene : tracer::scenes()) {
    const tracer::Trial trial = tracer::try_scene(scene, 0.002, 1'000'000, random);
    fmt::print("{:<28}{:>5.2f}{:>7.2f}{:>16.2f}{:>12.2f}{:>10.2f}\n", scene.name, scene.room.reflectance.left,
               scene.emitters[0].place_m.z, 100 * trial.worst_station, 100 * trial.noise, 100 * trial.mean);
    worst_station = std::max(worst_station, std::abs(trial.worst_station));
    worst_mean = std::max(worst_mean, std::abs(trial.mean));
    ++scenes;
  }
  fmt::print("{} scenes: worst station {:.2f} %, worst mean {:.2f} %\n", scenes, 100 * worst_station, 100 * worst_mean);
  const bool held = worst_station <= 0.02 && worst_mean <= 0.005;
  if (held)
    fmt::print("optics: held\n");
  else
    fmt::print("optics: fell short: worst station {:.2f} %, worst mean {:.2f} %\n", 100 * worst_station,
               100 * worst_mean);
  return held ? 0 : 1;
}
