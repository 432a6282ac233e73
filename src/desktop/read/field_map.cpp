#include "desktop/read/field_map.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/bench/station_box.h"
#include "desktop/paint/map_painter.h"
#include "desktop/read/map_overlays.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

constexpr double most_zoom = 16, shortest_cut_m = 0.02;
constexpr double key_room = 88, bare_room = 48, least_height_with_key = 360;

}  // namespace

FieldMap::FieldMap(Desk& desk, MapSettings& settings, QWidget* parent)
    : QWidget(parent), desk_(desk), settings_(settings) {
  setObjectName("fieldMap");
  setMinimumSize(280, 240);
  setMouseTracking(true);
  setAttribute(Qt::WA_OpaquePaintEvent);
  setAccessibleName(tr("Map of the sweep, far wall at the top"));
}

/// Where a cut leaves little room, the map has it rather than the scale.
bool FieldMap::has_key() const { return !settings_.cut || height() >= least_height_with_key; }

void FieldMap::renew() {
  stale_ = true;
  if (desk_.view() && settings_.pointed >= std::ssize(desk_.view()->states)) settings_.pointed = -1;
  describe();
  update();
}

void FieldMap::describe() {
  if (!desk_.view() || !desk_.test()) return;
  const ShownValues shown = shown_values(desk_, *desk_.view(), settings_);
  setAccessibleDescription(tr("%1, %2 of %3 stations read, zoomed %4 times%5")
                               .arg(shown.title)
                               .arg(desk_.view()->read())
                               .arg(desk_.view()->states.size())
                               .arg(settings_.zoom, 0, 'g', 3)
                               .arg(settings_.cut ? tr(", with a cut") : QString()));
}

MapFit FieldMap::fit() const {
  return zoomed(fit_map(rect(), desk_.view()->layout.footprint, true, has_key() ? key_room : bare_room), settings_.zoom,
                settings_.middle_m);
}

void FieldMap::paint(QPainter& p, const MapFit& fit, bool in_vectors) const {
  const ShownValues shown = shown_values(desk_, *desk_.view(), settings_);
  MapScene scene;
  scene.view = desk_.view();
  scene.bench = &desk_.test()->bench;
  scene.values = &shown.values;
  scene.scale = shown.scale;
  scene.text = shown.text;
  scene.band = shown.band;
  scene.units = desk_.units();
  scene.numbers = settings_.numbers;
  scene.contours = settings_.contours && scene.view->layout.is_lattice();
  scene.key = in_vectors || has_key();
  paint_map(p, fit, scene, in_vectors);
  paint_overlays(p, fit, desk_, settings_, in_vectors);
}

void FieldMap::paint_picture(QPainter& p, const QRectF& room, bool in_vectors) const {
  if (!desk_.view() || !desk_.test()) return;
  paint(p, fit_map(room, desk_.view()->layout.footprint, true), in_vectors);
}

void FieldMap::paintEvent(QPaintEvent*) {
  if (!desk_.test() || !desk_.view()) return QPainter(this).fillRect(rect(), theme().ground);
  const double ratio = devicePixelRatioF();
  if (stale_ || painted_.size() != size() * ratio) {
    painted_ = QPixmap(size() * ratio);
    painted_.setDevicePixelRatio(ratio);
    painted_.fill(theme().ground);
    QPainter p(&painted_);
    paint(p, fit(), false);
    stale_ = false;
  }
  QPainter p(this);
  p.drawPixmap(0, 0, painted_);
  const MapFit fitted = fit();
  p.setClipRect(fitted.frame);
  p.setRenderHint(QPainter::Antialiasing);
  if (settings_.pointed >= 0) {
    const auto boxes = station_boxes(desk_.view()->layout);
    const Station& s = desk_.view()->layout.stations[settings_.pointed];
    const QRectF box = settings_.pointed < std::ssize(boxes)
                           ? fitted.box(boxes[settings_.pointed])
                           : QRectF(fitted.pixel(s.x_m, s.y_m) - QPointF(9, 9), QSizeF(18, 18));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(theme().panel, 4));
    p.drawRect(box);
    p.setPen(QPen(theme().ember, 2));
    p.drawRect(box);
  }
  if (cut_from_) {
    const QPointF to = fitted.meters(mapFromGlobal(QCursor::pos()));
    paint_cut(p, fitted, *cut_from_, {to.x(), to.y()});
  }
}

void FieldMap::resizeEvent(QResizeEvent*) { stale_ = true; }

void FieldMap::zoom_by(double factor, const std::optional<QPointF>& about_m) {
  if (!desk_.view()) return;
  const Footprint fp = desk_.view()->layout.footprint;
  if (settings_.zoom <= 1) settings_.middle_m = QPointF(fp.width_m / 2, fp.depth_m / 2);
  const double zoom = std::clamp(settings_.zoom * factor, 1.0, most_zoom);
  // The place under the pointer stays under it.
  if (about_m) settings_.middle_m = *about_m + (settings_.middle_m - *about_m) * (settings_.zoom / zoom);
  settings_.zoom = zoom;
  renew();
}

void FieldMap::move_by(double right_m, double back_m) {
  if (settings_.zoom <= 1 || !desk_.view()) return;
  // From what is shown, which the floor's edges may have held back.
  settings_.middle_m = fit().meters(fit().frame.center()) + QPointF(right_m, back_m);
  renew();
}

void FieldMap::point_at(int station) {
  if (station == settings_.pointed) return;
  settings_.pointed = station;
  update();
  emit pointed(station);
}

void FieldMap::point_beside(int columns, int rows) {
  if (!desk_.view() || desk_.view()->states.empty()) return;
  const Layout& layout = desk_.view()->layout;
  const int count = static_cast<int>(layout.stations.size());
  if (settings_.pointed < 0 || settings_.pointed >= count)
    return point_at(station_near(layout, layout.footprint.width_m / 2, layout.footprint.depth_m / 2).value_or(0));
  if (!layout.is_lattice()) return point_at(std::clamp(settings_.pointed + columns + rows, 0, count - 1));
  const Station& s = layout.stations[settings_.pointed];
  point_at(layout.index(std::clamp(s.column + columns, 0, layout.columns - 1),
                        std::clamp(s.row + rows, 0, layout.rows - 1)));
}

void FieldMap::set_cut(const Place& from, const Place& to) {
  settings_.cut = {from, to};
  renew();
  emit cut_changed();
}

void FieldMap::step_cut() {
  if (!desk_.view()) return;
  const Rectangle& a = desk_.view()->layout.measured;
  const double left = a.left_m, right = a.left_m + a.width_m, front = a.front_m, back = a.front_m + a.depth_m;
  cut_step_ = settings_.cut ? cut_step_ + 1 : 1;
  switch (cut_step_) {
    case 1:
      return set_cut({left, (front + back) / 2}, {right, (front + back) / 2});
    case 2:
      return set_cut({(left + right) / 2, front}, {(left + right) / 2, back});
    case 3:
      return set_cut({left, front}, {right, back});
    case 4:
      return set_cut({left, back}, {right, front});
    default:
      settings_.cut.reset();
      renew();
      emit cut_changed();
  }
}

void FieldMap::move_cut(double right_m, double back_m) {
  if (!settings_.cut || !desk_.view()) return;
  const Footprint fp = desk_.view()->layout.footprint;
  auto [from, to] = *settings_.cut;
  const auto held = [](double move, double a, double b, double size) {
    return std::clamp(move, -std::min(a, b), size - std::max(a, b));
  };
  right_m = held(right_m, from.x_m, to.x_m, fp.width_m);
  back_m = held(back_m, from.y_m, to.y_m, fp.depth_m);
  set_cut({from.x_m + right_m, from.y_m + back_m}, {to.x_m + right_m, to.y_m + back_m});
}

void FieldMap::turn_cut(double degrees) {
  if (!settings_.cut || !desk_.view()) return;
  const auto& [from, to] = *settings_.cut;
  const Footprint fp = desk_.view()->layout.footprint;
  const double mx = (from.x_m + to.x_m) / 2, my = (from.y_m + to.y_m) / 2,
               angle = std::atan2(to.y_m - from.y_m, to.x_m - from.x_m) + degrees * std::numbers::pi / 180;
  // As long as the floor allows in the new direction, about the same middle.
  double half = std::hypot(fp.width_m, fp.depth_m);
  const auto reach = [&](double middle, double direction, double size) {
    if (std::abs(direction) > 1e-9)
      half = std::min(half, (direction > 0 ? std::min(size - middle, middle) : std::min(middle, size - middle)) /
                                std::abs(direction));
  };
  reach(mx, std::cos(angle), fp.width_m);
  reach(my, std::sin(angle), fp.depth_m);
  set_cut({mx - half * std::cos(angle), my - half * std::sin(angle)},
          {mx + half * std::cos(angle), my + half * std::sin(angle)});
}

void FieldMap::mousePressEvent(QMouseEvent* event) {
  if (!desk_.view()) return;
  const QPointF at = fit().meters(event->position());
  if (event->modifiers() & Qt::ShiftModifier)
    cut_from_ = Place{at.x(), at.y()};
  else if (settings_.zoom > 1)
    dragged_ = event->position();
}

void FieldMap::mouseMoveEvent(QMouseEvent* event) {
  if (!desk_.view()) return;
  const MapFit fitted = fit();
  if (cut_from_) return update();
  if (dragged_) {
    const QPointF moved = (event->position() - *dragged_) / fitted.scale;
    dragged_ = event->position();
    return move_by(-moved.x(), moved.y());
  }
  if (!fitted.frame.contains(event->position())) return point_at(-1);
  const QPointF at = fitted.meters(event->position());
  point_at(station_near(desk_.view()->layout, at.x(), at.y()).value_or(-1));
}

void FieldMap::mouseReleaseEvent(QMouseEvent* event) {
  dragged_.reset();
  if (!cut_from_ || !desk_.view()) return;
  const Place from = *cut_from_;
  cut_from_.reset();
  const QPointF to = fit().meters(event->position());
  if (std::hypot(to.x() - from.x_m, to.y() - from.y_m) < shortest_cut_m) return update();
  set_cut(from, {to.x(), to.y()});
}

void FieldMap::wheelEvent(QWheelEvent* event) {
  if (!desk_.view()) return;
  zoom_by(std::pow(1.2, event->angleDelta().y() / 120.0), fit().meters(event->position()));
}

void FieldMap::leaveEvent(QEvent*) { point_at(-1); }

}  // namespace sunbreak::desktop
