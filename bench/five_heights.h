#pragma once

#include <random>

#include "core/optics/fixture_shapes.h"
#include "core/optics/room_light.h"
#include "core/whole_light/believed_room.h"
#include "core/whole_light/whole_light.h"

namespace sunbreak::bench {

/// Five heights of 144 stations under a board in a tent, made by the finer model with a fixed seed.
inline WholeLightQuestion five_heights() {
  WholeLightQuestion q;
  q.room = {1.2, 1.2, 2.0, {}};
  q.sides = believed_sides({"reflective", "reflective", "reflective", "reflective"});
  q.outline.width_m = q.outline.depth_m = 0.5;
  q.noise = 0.008;
  const Room room{1.2, 1.2, 2.0, {0.8, 0.82, 0.79, 0.81, 0.7, 0.25}};
  const RoomLight model(room);
  const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, 12, 12, 0, 0, {}}).value();
  std::vector<Vec3> places;
  for (const Station& s : layout.stations) places.push_back({s.x_m, s.y_m, 0});
  std::mt19937_64 random(20261128);
  std::normal_distribution<double> noise(1, 0.008);
  for (const double height : {0.25, 0.35, 0.45, 0.6, 0.75}) {
    const auto lamp = placed(tilted(board(0.5, 0.5, 8, 8, 600, 1.4), 0.8, -0.3), {0.61, 0.6, height});
    const Prediction p = model.predict_once(lamp, places);
    FitSweep sweep{height, 0, layout, {}};
    for (std::size_t i = 0; i < places.size(); ++i)
      sweep.ppfd.push_back((p.direct[i] + p.reflected[i]) * noise(random));
    q.sweeps.push_back(std::move(sweep));
  }
  return q;
}

}  // namespace sunbreak::bench
