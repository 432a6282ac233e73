#pragma once

#include <QPainter>
#include <optional>

#include "book/bundle.h"
#include "core/quantity/display.h"
#include "report/light_scale.h"

namespace sunbreak::desktop {

/// What a map of one sweep shows.
struct MapScene {
  const book::SweepView* view = nullptr;
  const book::Bench* bench = nullptr;
  report::ScaleRange range;
  std::optional<Band> band;
  UnitSystem units = UnitSystem::Metric;
  int current = -1;     ///< station ringed in ember
  bool numbers = true;  ///< where they fit
  bool rulers = true;   ///< places, door and light scale around the map
};

/// A map fitted into a rectangle: where things are on it.
struct MapFit {
  QRectF floor;      ///< the footprint
  double scale = 1;  ///< pixels per meter
  double depth_m = 1;

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

/// Paints the map, far wall at the top: stations colored by the light scale with their values, hatched below the band,
/// dotted above it; unread stations as open dots, missing ones crossed; walls and door as the bench states them.
void paint_map(QPainter& p, const MapFit& fit, const MapScene& scene);

/// Only what stands around a map: walls, door side, places.
void paint_surroundings(QPainter& p, const MapFit& fit, const MapScene& scene);

QColor qcolor(const report::Rgb& c);

}  // namespace sunbreak::desktop
