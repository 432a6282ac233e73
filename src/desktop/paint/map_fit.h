#pragma once

#include <QRectF>

#include "drawing/map_fit.h"

namespace sunbreak::desktop {

/// drawing::MapFit in the window's own types.
struct MapFit {
  QRectF floor;      ///< the footprint, all of it
  double scale = 1;  ///< pixels per meter
  double depth_m = 1;
  QRectF frame;  ///< the part of the picture the map is shown in; the floor itself unless zoomed

  QPointF pixel(double x_m, double y_m) const;
  QPointF meters(const QPointF& pixel) const;
  QRectF box(const Rectangle& r) const;

  drawing::MapFit plain() const;
};

QRectF rect_of(const drawing::Box& box);
drawing::Box box_of(const QRectF& rect);

MapFit fit_map(const QRectF& room, const Footprint& footprint, bool rulers, double foot_room = drawing::map_foot_room);
MapFit zoomed(const MapFit& whole, double zoom, const QPointF& middle_m);

}  // namespace sunbreak::desktop
