#pragma once

#include <optional>

#include "core/figures/area_curve.h"
#include "core/quantity/display.h"
#include "drawing/canvas.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {

/// Area at or above each PPFD.
struct AreaPlot {
  const AreaCurve* curve = nullptr;
  double area_m2 = 1;            ///< the whole
  ScaleRange range;              ///< of PPFD, from 0
  std::optional<double> marked;  ///< a PPFD read off the curve
  UnitSystem units = UnitSystem::Metric;
};

/// Where the curve itself lies in its room, its labels around it.
Box area_plot_box(const Box& room);

void draw_area_plot(Canvas& canvas, const Box& room, const AreaPlot& plot);

}  // namespace sunbreak::drawing
