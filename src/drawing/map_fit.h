#pragma once

#include "core/bench/footprint.h"
#include "core/bench/place.h"
#include "drawing/geometry.h"

namespace sunbreak::drawing {

/// Beside a map with rulers, above it, and under it with its scale [px].
inline constexpr double map_left_room = 48, map_right_room = 16, map_top_room = 16, map_foot_room = 88;

/// A map fitted into a rectangle: where things are on it.
struct MapFit {
  Box floor;         ///< the footprint, all of it
  double scale = 1;  ///< pixels per meter
  double depth_m = 1;
  Box frame;  ///< the part of the picture the map is shown in; the floor itself unless zoomed

  Point pixel(double x_m, double y_m) const { return {floor.left + x_m * scale, floor.bottom() - y_m * scale}; }
  Place place(const Point& pixel) const { return {(pixel.x - floor.left) / scale, (floor.bottom() - pixel.y) / scale}; }
  Box box(const Rectangle& r) const {
    const Point corner = pixel(r.left_m, r.front_m + r.depth_m);
    return {corner.x, corner.y, r.width_m * scale, r.depth_m * scale};
  }
};

/// The largest true-to-scale map of a footprint in a rectangle, leaving room for what stands around and under it.
MapFit fit_map(const Box& room, const Footprint& footprint, bool rulers, double foot_room = map_foot_room);

/// The same frame showing a part of the floor, `zoom` times as large, about a place of it as far as its edges allow.
MapFit zoomed(const MapFit& whole, double zoom, const Place& middle);

}  // namespace sunbreak::drawing
