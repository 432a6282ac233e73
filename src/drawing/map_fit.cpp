#include "drawing/map_fit.h"

#include <algorithm>

namespace sunbreak::drawing {

MapFit fit_map(const Box& room, const Footprint& footprint, bool rulers, double foot_room) {
  const Box inner = rulers ? Box{room.left + map_left_room, room.top + map_top_room,
                                 room.width - map_left_room - map_right_room, room.height - map_top_room - foot_room}
                           : room;
  const double scale = std::max(1.0, std::min(inner.width / footprint.width_m, inner.height / footprint.depth_m));
  const double width = footprint.width_m * scale, height = footprint.depth_m * scale;
  const Box floor{inner.center().x - width / 2, inner.top + (rulers ? 0 : (inner.height - height) / 2), width, height};
  return {floor, scale, footprint.depth_m, floor};
}

MapFit zoomed(const MapFit& whole, double zoom, const Place& middle) {
  if (zoom <= 1) return whole;
  MapFit fit = whole;
  fit.scale *= zoom;
  fit.floor.width *= zoom;
  fit.floor.height *= zoom;
  const Point center = whole.frame.center();
  fit.floor.left =
      std::clamp(center.x - middle.x_m * fit.scale, whole.frame.right() - fit.floor.width, whole.frame.left);
  fit.floor.top = std::clamp(center.y - (whole.depth_m - middle.y_m) * fit.scale,
                             whole.frame.bottom() - fit.floor.height, whole.frame.top);
  return fit;
}

}  // namespace sunbreak::drawing
