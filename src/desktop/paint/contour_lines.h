#pragma once

#include <QPainter>
#include <QPainterPath>
#include <vector>

#include "core/sweep/field.h"
#include "desktop/paint/map_fit.h"
#include "desktop/paint/value_scale.h"

namespace sunbreak::desktop {

/// The lines of one value on a map, with where their labels go.
struct ContourLines {
  double level = 0;
  QPainterPath path;
  std::vector<QRectF> labels;
};

/// Contours at round values over the field's own range, each long one labeled where it runs flattest and no other
/// label stands.
std::vector<ContourLines> contour_lines(const Field& field, const MapFit& fit, const ValueText& text);

void paint_contours(QPainter& p, const std::vector<ContourLines>& lines, const ValueScale& scale,
                    const ValueText& text);

}  // namespace sunbreak::desktop
