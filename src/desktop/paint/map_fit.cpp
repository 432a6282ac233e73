#include "desktop/paint/map_fit.h"

namespace sunbreak::desktop {
namespace {
MapFit in_window_types(const drawing::MapFit& fit) {
  return {rect_of(fit.floor), fit.scale, fit.depth_m, rect_of(fit.frame)};
}
}  // namespace

QRectF rect_of(const drawing::Box& box) { return {box.left, box.top, box.width, box.height}; }
drawing::Box box_of(const QRectF& rect) { return {rect.left(), rect.top(), rect.width(), rect.height()}; }

drawing::MapFit MapFit::plain() const { return {box_of(floor), scale, depth_m, box_of(frame)}; }

QPointF MapFit::pixel(double x_m, double y_m) const {
  const drawing::Point p = plain().pixel(x_m, y_m);
  return {p.x, p.y};
}
QPointF MapFit::meters(const QPointF& pixel) const {
  const Place p = plain().place({pixel.x(), pixel.y()});
  return {p.x_m, p.y_m};
}
QRectF MapFit::box(const Rectangle& r) const { return rect_of(plain().box(r)); }

MapFit fit_map(const QRectF& room, const Footprint& footprint, bool rulers, double foot_room) {
  return in_window_types(drawing::fit_map(box_of(room), footprint, rulers, foot_room));
}

MapFit zoomed(const MapFit& whole, double zoom, const QPointF& middle_m) {
  return in_window_types(drawing::zoomed(whole.plain(), zoom, {middle_m.x(), middle_m.y()}));
}

}  // namespace sunbreak::desktop
