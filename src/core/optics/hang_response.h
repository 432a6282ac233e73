#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/optics/room_light.h"

namespace sunbreak {

/// What leaning and shifting a fixture does to the corners of the opening probe, in % of the corners' mean: right over
/// left and far over near, as it hangs true, for 1 degree (the right or far side lower) and for 1 cm (to the right or
/// away from the door).
struct HangResponse {
  double expected_right_over_left_pct = 0, expected_far_over_near_pct = 0;
  double right_over_left_per_deg = 0, far_over_near_per_deg = 0;
  double right_over_left_per_cm = 0, far_over_near_per_cm = 0;
  double half_width_m = 0, half_depth_m = 0;  ///< of the fixture, to turn a lean into a lift at its edge
  std::vector<double> pattern{};              ///< the light of all stations as it hangs true; only its shape is meant
};

/// By the optical model, for a fixture about its middle hung over the middle of the room. Without an opening probe
/// only the pattern is worked out.
HangResponse hang_response(const RoomLight& light, std::span<const Emitter> fixture, const Layout& layout,
                           double height_m);

}  // namespace sunbreak
