#pragma once

#include <span>

#include "core/bench/grid.h"
#include "core/optics/room_light.h"

namespace sunbreak {

/// What a grid would make of a fixture's light, beside a very dense grid.
struct SamplingAdvice {
  double mean_error = 0;    ///< (mean of the grid − mean of the dense grid) / the latter
  double lowest_error = 0;  ///< (lowest of the grid − lowest of the dense grid) / the latter
};

/// Expected errors of mean and lowest that come from sampling alone, for emitters in a room and a grid of cells, nodes
/// or inset on its floor; the dense grid has 96 × 96 cells over the same measured area.
SamplingAdvice sampling_advice(const RoomLight& room, std::span<const Emitter> emitters, const Grid& grid);

/// Cells along x and y that suffice for the mean, and the error they would leave.
struct StationsNeeded {
  int columns = 0, rows = 0;
  double mean_error = 0;
};

/// The fewest cells, about square, whose mean lies within `tolerance` (a share) of a dense grid's, and so does that of
/// every finer grid up to 24 along the shorter side, since a single count can be right by chance.
StationsNeeded stations_for_mean(const RoomLight& room, std::span<const Emitter> emitters, double tolerance);

}  // namespace sunbreak
