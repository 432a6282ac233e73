#pragma once

#include <optional>
#include <span>

#include "core/optics/room_light.h"

namespace sunbreak {

/// The height [m] between `low_m` and `high_m` at which the middle of the floor reads `ppfd`, for a fixture about its
/// own middle hung over it; to 1 mm, by bisection on the falling part of the curve. Nothing where the middle is dimmer
/// than that at every height, or still brighter at the highest.
std::optional<double> height_for_center(const RoomLight& light, std::span<const Emitter> fixture, double ppfd,
                                        double low_m, double high_m);

}  // namespace sunbreak
