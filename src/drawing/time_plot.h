#pragma once

#include <string>
#include <vector>

#include "drawing/interval_axis.h"

namespace sunbreak::drawing {

/// A figure of one unit at one day, with its ± (k = 2).
struct TimedEstimate {
  double day = 0;  ///< since any day
  std::string date;
  double value = 0, expanded = 0;
  BarRole role = BarRole::Plain;
};

/// Estimates over time, each a bar as tall as its ±.
void draw_time_plot(Canvas& canvas, const Box& room, const std::vector<TimedEstimate>& estimates,
                    const std::string& name, double shown_per_stored);

}  // namespace sunbreak::drawing
