#pragma once

#include <functional>

#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// Of the diagonals where it is too dim and of the dots where it is too bright [px].
inline constexpr int hatch_pitch = 10, dot_pitch = 7;
inline constexpr double hatch_width = 0.9, dot_radius = 1;
/// How much of the ink shows, of 256.
inline constexpr int dim_share = 120, bright_share = 130;

Ink hatch_ink(Hatch kind);

/// The diagonals x + y = n · pitch that lie in a box, from where each comes in to where it leaves: neighboring boxes
/// continue each other.
void for_diagonals(const Box& box, const std::function<void(const Point&, const Point&)>& line);

/// The dots of one ruled sheet that lie in a box.
void for_dots(const Box& box, const std::function<void(const Point&)>& dot);

}  // namespace sunbreak::drawing
