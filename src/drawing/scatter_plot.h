#pragma once

#include <string>
#include <vector>

#include "drawing/interval_axis.h"

namespace sunbreak::drawing {

/// An entry by two figures, each with its ± (k = 2).
struct ScatterPoint {
  double x = 0, y = 0, x_expanded = 0, y_expanded = 0;
  std::string name;
  BarRole role = BarRole::Plain;
  bool on_frontier = false;  ///< none is at least as good in both
};

struct ScatterPlot {
  std::string x_name, y_name;
  double x_per_stored = 1, y_per_stored = 1;
  bool less_x_is_better = false, less_y_is_better = false;
  std::vector<ScatterPoint> points;
};

/// Which of the points no other is at least as good as in both figures, and better in one.
void mark_frontier(ScatterPlot& plot);

/// Points with their ± as crosses, named where there is room, the frontier as a stepped line.
void draw_scatter(Canvas& canvas, const Box& room, const ScatterPlot& plot);

}  // namespace sunbreak::drawing
