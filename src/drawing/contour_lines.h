#pragma once

#include <vector>

#include "core/sweep/field.h"
#include "drawing/map_fit.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {

/// The lines of one level on a map, and where their labels go.
struct ContourLines {
  double level = 0;
  std::vector<std::vector<Point>> lines{};
  std::vector<Box> labels{};
};

/// Lines at round values, labeled where they run flat and no other label is; on a long line more than once. The canvas
/// tells how wide a label is.
std::vector<ContourLines> contour_lines(const Canvas& canvas, const Field& field, const MapFit& fit,
                                        const ValueText& text);

void draw_contours(Canvas& canvas, const std::vector<ContourLines>& lines, const ValueScale& scale,
                   const ValueText& text);

}  // namespace sunbreak::drawing
