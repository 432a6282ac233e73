#pragma once

#include <string>
#include <vector>

#include "drawing/interval_axis.h"

namespace sunbreak::drawing {

/// One curve among several over each other.
struct OverlaidCurve {
  std::string name;
  std::vector<Point> points;  ///< in the unit of the axes; NaN breaks it
  BarRole role = BarRole::Plain;
};

struct CurveOverlay {
  std::string x_name, y_name;
  std::vector<OverlaidCurve> curves;
};

/// Curves over each other on axes from 0, those under the hand on top; each is named at its end where there is room.
void draw_curves(Canvas& canvas, const Box& room, const CurveOverlay& overlay);

}  // namespace sunbreak::drawing
