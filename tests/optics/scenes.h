#pragma once

#include <string>
#include <vector>

#include "core/optics/fixture_shapes.h"
#include "core/optics/room.h"

namespace sunbreak::tracer {

struct Scene {
  std::string name;
  Room room;
  std::vector<Emitter> emitters;
};

inline Room room_of(double width_m, double depth_m, double reflectance) {
  return {width_m,
          depth_m,
          2.0,
          {reflectance, reflectance, reflectance, reflectance, 0.9 * reflectance, 0.4 * reflectance}};
}

/// Rooms, reflectances, fixtures and heights over the whole range that tests are done in.
inline std::vector<Scene> scenes() {
  std::vector<Scene> all;
  const std::pair<double, double> sizes[] = {{0.6, 1.2}, {1.2, 1.2}, {1.5, 1.5}};
  for (const auto& [width, depth] : sizes)
    for (const double reflectance : {0.0, 0.4, 0.72, 0.9})
      for (const double height : {0.15, 0.45, 1.0}) {
        const auto add = [&](const std::string& fixture, const std::vector<Emitter>& emitters) {
          all.push_back(
              {fixture + ", " + std::to_string(width).substr(0, 3) + " x " + std::to_string(depth).substr(0, 3) + " m",
               room_of(width, depth, reflectance), placed(emitters, {width / 2, depth / 2, height})});
        };
        add("spot", {{{-0.05, 0.08, 0}, straight_down, 300, 2.5}});
        add("board", board(0.4 * width, 0.4 * depth, 8, 8, 400));
        add("six bars", bars(6, 0.8 * width, 0.85 * depth, 18, 900));
      }
  return all;
}

/// Middle, quarter, mid-side and corner stations, the last two 2 cm from a wall.
inline std::vector<Vec3> probe_stations(const Room& room) {
  const double w = room.width_m, d = room.depth_m;
  return {{w / 2, d / 2, 0}, {w / 4, d / 3, 0}, {0.02, d / 2, 0}, {0.02, 0.02, 0}, {0.6 * w, d - 0.02, 0}};
}

}  // namespace sunbreak::tracer
