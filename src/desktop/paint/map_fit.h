#pragma once

#include <QRectF>

#include "core/bench/footprint.h"

namespace sunbreak::desktop {

/// Beside a map with rulers [px].
inline constexpr double map_left_room = 48, map_right_room = 16;

/// A map fitted into a rectangle: where things are on it.
struct MapFit {
  QRectF floor;      ///< the footprint, all of it
  double scale = 1;  ///< pixels per meter
  double depth_m = 1;
  QRectF frame;  ///< the part of the picture the map is shown in; the floor itself unless zoomed

  QPointF pixel(double x_m, double y_m) const { return {floor.left() + x_m * scale, floor.bottom() - y_m * scale}; }
  QPointF meters(const QPointF& pixel) const {
    return {(pixel.x() - floor.left()) / scale, (floor.bottom() - pixel.y()) / scale};
  }
  QRectF box(const Rectangle& r) const {
    return {pixel(r.left_m, r.front_m + r.depth_m), QSizeF(r.width_m * scale, r.depth_m * scale)};
  }
};

/// The largest true-to-scale map of a footprint in a rectangle, leaving room for what stands around and under it.
MapFit fit_map(const QRectF& room, const Footprint& footprint, bool rulers, double foot_room = 88);

/// The same frame showing a part of the floor, `zoom` times as large, about a place of it as far as its edges allow.
MapFit zoomed(const MapFit& whole, double zoom, const QPointF& middle_m);

}  // namespace sunbreak::desktop
