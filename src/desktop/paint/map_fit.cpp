#include "desktop/paint/map_fit.h"

#include <algorithm>

namespace sunbreak::desktop {
namespace {
constexpr double top_room = 16;
}

MapFit fit_map(const QRectF& room, const Footprint& footprint, bool rulers, double foot_room) {
  const QRectF inner = rulers ? room.adjusted(map_left_room, top_room, -map_right_room, -foot_room) : room;
  const double scale = std::max(1.0, std::min(inner.width() / footprint.width_m, inner.height() / footprint.depth_m));
  const QSizeF size(footprint.width_m * scale, footprint.depth_m * scale);
  const QRectF floor(
      QPointF(inner.center().x() - size.width() / 2, inner.top() + (rulers ? 0 : (inner.height() - size.height()) / 2)),
      size);
  return {floor, scale, footprint.depth_m, floor};
}

MapFit zoomed(const MapFit& whole, double zoom, const QPointF& middle_m) {
  if (zoom <= 1) return whole;
  MapFit fit = whole;
  fit.scale *= zoom;
  const QSizeF size = whole.floor.size() * zoom;
  const QPointF middle = whole.frame.center();
  const double left = middle.x() - middle_m.x() * fit.scale,
               top = middle.y() - (whole.depth_m - middle_m.y()) * fit.scale;
  fit.floor = QRectF(QPointF(std::clamp(left, whole.frame.right() - size.width(), whole.frame.left()),
                             std::clamp(top, whole.frame.bottom() - size.height(), whole.frame.top())),
                     size);
  return fit;
}

}  // namespace sunbreak::desktop
