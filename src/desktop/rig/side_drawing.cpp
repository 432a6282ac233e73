#include "desktop/rig/side_drawing.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {
namespace {
constexpr double rung_grab_px = 8, least_height_m = 0.02, rung_step_m = 0.01;
}  // namespace

SideDrawing::SideDrawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumSize(160, 200);
  setMouseTracking(true);
  setFocusPolicy(Qt::TabFocus);
  setObjectName("sideDrawing");
  setAccessibleName(tr("The bench from the side with the planned heights"));
  setToolTip(tr("Drag a height, or choose one with Left and Right and move it with Up and Down"));
  connect(&desk, &Desk::changed, this, [this] {
    dragged_m_.reset();
    describe();
    update();
  });
}

void SideDrawing::describe() {
  QStringList texts;
  for (const double h : heights()) texts << text_of(length_text(h, desk_.units()));
  setAccessibleDescription(tr("heights %1").arg(texts.join(", ")));
}

void SideDrawing::set_draft(std::optional<record::TestRecord> draft) {
  draft_ = std::move(draft);
  update();
}

const record::TestRecord* SideDrawing::test() const { return draft_ ? &*draft_ : desk_.test(); }

std::vector<double> SideDrawing::heights() const {
  if (dragged_m_) return *dragged_m_;
  std::vector<double> all;
  if (test())
    for (const record::Rung& r : test()->rungs) all.push_back(r.height_m);
  return all;
}

SideDrawing::Fit SideDrawing::fit() const {
  const QRectF room = QRectF(rect()).adjusted(44, 12, -16, -46);
  double top_m = 0.3;
  for (const double h : heights()) top_m = std::max(top_m, h);
  top_m = test()->bench.height_m.value_or(top_m * 1.3);
  const double width_m = test()->bench.width_m;
  Fit f;
  f.scale = std::min(room.width() / width_m, room.height() / top_m);
  const QSizeF size(width_m * f.scale, top_m * f.scale);
  f.box = QRectF(QPointF(room.center().x() - size.width() / 2, room.top()), size);
  return f;
}

void SideDrawing::paintEvent(QPaintEvent*) {
  if (!test()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Fit f = fit();
  draw_room(p, f);
  const auto all = heights();
  chosen_ = std::clamp(chosen_, 0, std::max(static_cast<int>(all.size()) - 1, 0));
  if (!all.empty()) draw_fixture(p, f, all[static_cast<std::size_t>(chosen_)]);
  draw_sensor(p, f);
  draw_rungs(p, f);
  if (hasFocus()) {
    p.setPen(QPen(theme().ember, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -2, -2));
  }
}

void SideDrawing::draw_room(QPainter& p, const Fit& f) const {
  const Theme& t = theme();
  const record::Bench& bench = test()->bench;
  p.fillRect(f.box, t.look == Look::Paper ? t.panel : t.ground);
  const auto line = [&](const std::string& kind, const QPointF& a, const QPointF& b) {
    p.setPen(QPen(t.quiet, kind == "open" ? 1 : 3, kind == "open" ? Qt::DotLine : Qt::SolidLine));
    p.drawLine(a, b);
  };
  line(bench.wall_left, f.box.topLeft(), f.box.bottomLeft());
  line(bench.wall_right, f.box.topRight(), f.box.bottomRight());
  line(bench.wall_left, f.box.topLeft(), f.box.topRight());
  p.setPen(QPen(t.ink, 3));
  p.drawLine(f.box.bottomLeft() - QPointF(4, 0), f.box.bottomRight() + QPointF(4, 0));
  if (test()->test.tape_from == "canopy" && test()->test.canopy_height_m) {
    const record::Meter* sensor = test()->meter(test()->test.sensor_id);
    const double over_sensor_m = *test()->test.canopy_height_m - (sensor ? sensor->receiving_height_m.value_or(0) : 0);
    p.setPen(QPen(t.good, 1.5, Qt::DashLine));
    p.drawLine(QPointF(f.box.left(), f.y(over_sensor_m)), QPointF(f.box.right(), f.y(over_sensor_m)));
  }
}

void SideDrawing::draw_fixture(QPainter& p, const Fit& f, double height_m) const {
  const Theme& t = theme();
  const FixtureOutline o = evaluation::outline_of(*test());
  const double middle = f.box.center().x(), y = f.y(height_m);
  p.setClipRect(f.box);
  for (int unit = 0; unit < units_of(o); ++unit) {
    const double x = middle + turned_unit_place(o, unit).x_m * f.scale, half = o.width_m * f.scale / 2;
    // The light of a unit, out to the angle at which it has halved.
    const double reach = height_m * f.scale, spread = std::tan(std::min(o.beam_angle_deg / 2, 75.0) * 0.0174533);
    QColor glow = theme().light;
    glow.setAlpha(t.look == Look::Paper ? 60 : 36);
    p.save();
    p.translate(x, y);
    p.rotate(-described_roll_deg(o, unit));
    p.setPen(Qt::NoPen);
    p.setBrush(glow);
    p.drawPolygon(QPolygonF({QPointF(-half, 0), QPointF(half, 0), QPointF(half + reach * spread, reach),
                             QPointF(-half - reach * spread, reach)}));
    p.setPen(QPen(t.quiet, 1));
    p.drawLine(QPointF(-half * 0.7, -5), QPointF(-half * 0.7, -f.box.height()));
    p.drawLine(QPointF(half * 0.7, -5), QPointF(half * 0.7, -f.box.height()));
    p.fillRect(QRectF(-half, -6, 2 * half, 6), t.ink);
    p.restore();
  }
  p.setClipping(false);
}

void SideDrawing::draw_sensor(QPainter& p, const Fit& f) const {
  const Theme& t = theme();
  const record::Meter* sensor = test()->meter(test()->test.sensor_id);
  const double nearest_m = sensor ? sensor->closest_approach_m.value_or(0) : 0;
  if (nearest_m > 0) {
    p.setPen(QPen(t.lake, 1, Qt::DotLine));
    for (const double x : {f.box.left() + nearest_m * f.scale, f.box.right() - nearest_m * f.scale})
      p.drawLine(QPointF(x, f.box.bottom() - 28), QPointF(x, f.box.bottom()));
  }
  p.setPen(Qt::NoPen);
  p.setBrush(t.lake);
  p.drawRect(QRectF(f.box.center().x() - 4, f.box.bottom() - 5, 8, 5));
  p.setPen(t.quiet);
  p.setFont(text_font(11));
  QString words = tr("sensor's receiving surface");
  if (nearest_m > 0) words += tr(" · no nearer than %1 to a wall").arg(text_of(length_text(nearest_m, desk_.units())));
  p.drawText(QRectF(0, f.box.bottom() + 6, width(), 34), Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, words);
}

void SideDrawing::draw_rungs(QPainter& p, const Fit& f) const {
  const Theme& t = theme();
  const auto all = heights();
  double label_y = -1e9;
  for (std::size_t i = 0; i < all.size(); ++i) {
    const bool here = static_cast<int>(i) == chosen_;
    const double y = f.y(all[i]);
    p.setPen(QPen(here ? t.ember : t.quiet, here ? 2 : 1, here ? Qt::SolidLine : Qt::DashLine));
    p.drawLine(QPointF(f.box.left() - 4, y), QPointF(f.box.right() + 4, y));
    label_y = std::max(label_y + 15, y);
    p.setPen(here ? t.ember : t.ink);
    p.setFont(text_font(12, here));
    p.drawText(QRectF(0, label_y - 8, f.box.left() - 8, 16), Qt::AlignRight | Qt::AlignVCenter,
               show_length(all[i], desk_.units()));
  }
}

int SideDrawing::rung_near(const QPointF& place) const {
  if (!test()) return -1;
  const Fit f = fit();
  const auto all = heights();
  int nearest = -1;
  double least = rung_grab_px;
  for (std::size_t i = 0; i < all.size(); ++i)
    if (const double away = std::abs(f.y(all[i]) - place.y()); away < least)
      least = away, nearest = static_cast<int>(i);
  return nearest;
}

void SideDrawing::move_rung(int rung, double height_m) {
  auto all = heights();
  const double most = test()->bench.height_m.value_or(10);
  all[static_cast<std::size_t>(rung)] =
      std::clamp(std::round(height_m / rung_step_m) * rung_step_m, least_height_m, most);
  dragged_m_ = all;
  update();
}

void SideDrawing::mousePressEvent(QMouseEvent* event) {
  const int rung = rung_near(event->position());
  if (rung < 0) return;
  chosen_ = rung;
  dragging_ = !desk_.read_only();
  setFocus(Qt::MouseFocusReason);
  update();
}

void SideDrawing::mouseMoveEvent(QMouseEvent* event) {
  setCursor(rung_near(event->position()) >= 0 || dragging_ ? Qt::SizeVerCursor : Qt::ArrowCursor);
  if (!dragging_ || !test()) return;
  const Fit f = fit();
  move_rung(chosen_, (f.box.bottom() - event->position().y()) / f.scale);
}

void SideDrawing::mouseReleaseEvent(QMouseEvent*) {
  if (std::exchange(dragging_, false) && dragged_m_) emit heights_wanted(*std::exchange(dragged_m_, std::nullopt));
}

void SideDrawing::keyPressEvent(QKeyEvent* event) {
  const auto all = heights();
  if (all.empty()) return QWidget::keyPressEvent(event);
  const int by = event->key() == Qt::Key_Up ? 1 : event->key() == Qt::Key_Down ? -1 : 0;
  if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
    chosen_ = std::clamp(chosen_ + (event->key() == Qt::Key_Right ? 1 : -1), 0, static_cast<int>(all.size()) - 1);
    return update();
  }
  if (by == 0 || desk_.read_only()) return QWidget::keyPressEvent(event);
  move_rung(chosen_, all[static_cast<std::size_t>(chosen_)] + by * rung_step_m);
  emit heights_wanted(*std::exchange(dragged_m_, std::nullopt));
}

}  // namespace sunbreak::desktop
