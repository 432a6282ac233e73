#pragma once

#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// A claim beside its measurement, in one unit; NaN where there is none. Of ranges, also the upper ends.
struct ClaimAxis {
  double claimed = 0, claimed_to = 0, measured = 0, measured_to = 0, expanded = 0;
};

/// One small axis: the claim a tick from its top to its foot, the measurement a bar as long as its ±, with a tick at
/// the value; of ranges, a line from end to end. Nothing where neither is known.
void draw_claim_axis(Canvas& canvas, const Box& room, const ClaimAxis& axis);

}  // namespace sunbreak::drawing
