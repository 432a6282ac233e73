#pragma once

#include <string>
#include <vector>

#include "drawing/canvas.h"
#include "evaluation/check_lamps.h"

namespace sunbreak::drawing {

/// A value of a control chart at its day.
struct ChartedValue {
  double day = 0;  ///< since any day
  std::string date;
  double off_pct = 0;   ///< from the center line
  double mean_pct = 0;  ///< its weighted mean with those before; NaN while the chart learns
  bool odd = false;     ///< not comparable: the lamp was driven or placed otherwise
};

/// Values around a center line with their limits, and the moment from which the light is another.
struct ControlChart {
  std::vector<ChartedValue> values;
  double limit_pct = 0, mean_limit_pct = 0;
  double moved_day = 0, moved_pct = 0, moved_expanded_pct = 0;  ///< of the step that was found
  bool moved = false;
};

/// A lamp's chart as it is drawn: light and weighted mean in percent of the center line.
ControlChart control_chart(const evaluation::LampBoard& board, const LampChart& chart);

/// Dots are values, the line their weighted mean; limits dashed and dotted.
void draw_control_chart(Canvas& canvas, const Box& room, const ControlChart& chart);

}  // namespace sunbreak::drawing
