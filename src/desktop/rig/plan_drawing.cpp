#include "desktop/rig/plan_drawing.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "desktop/desk/desk.h"
#include "desktop/paint/painter_canvas.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"
#include "drawing/surroundings.h"
#include "evaluation/rig_model.h"
#include "evaluation/test_checks.h"

namespace sunbreak::desktop {
namespace {

constexpr double grab_px = 7;

/// What a handle is and where it stands now.
QString handle_words(const record::TestRecord& test, const PlanHandle& handle, UnitSystem units) {
  const auto length = [&](double m) { return text_of(length_text(m, units)); };
  const FixtureOutline o = evaluation::outline_of(test);
  switch (handle.kind) {
    case PlanHandle::Margin:
      if (const auto layout = lay_out(record::footprint_of(test.bench), record::grid_of(test.test)))
        return QObject::tr("outer stations %1 from the left and right walls, %2 from front and far")
            .arg(length(layout.value().xs_m.front()), length(layout.value().ys_m.front()));
      return {};
    case PlanHandle::Spot: {
      const Spot spot = spot_of(test, handle);
      return QObject::tr("%1: %2 from the left, %3 from the door")
          .arg(text_of(spot.name), length(spot.x_m), length(spot.y_m));
    }
    case PlanHandle::Width:
      return QObject::tr("a unit %1 wide").arg(length(o.width_m));
    case PlanHandle::Depth:
      return QObject::tr("a unit %1 deep").arg(length(o.depth_m));
    case PlanHandle::Spacing:
      return QObject::tr("units %1 apart, middle to middle").arg(length(o.spacing_x_m));
    case PlanHandle::RowSpacing:
      return QObject::tr("rows of units %1 apart, middle to middle").arg(length(o.spacing_y_m));
  }
  return {};
}

Qt::CursorShape cursor_of(const PlanHandle& handle) {
  switch (handle.kind) {
    case PlanHandle::Width:
    case PlanHandle::Spacing:
      return Qt::SizeHorCursor;
    case PlanHandle::Depth:
    case PlanHandle::RowSpacing:
      return Qt::SizeVerCursor;
    default:
      return Qt::SizeAllCursor;
  }
}

}  // namespace

PlanDrawing::PlanDrawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumSize(200, 200);
  setMouseTracking(true);
  setFocusPolicy(Qt::TabFocus);
  setObjectName("planDrawing");
  setAccessibleName(tr("Plan of the bench with the stations in walk order"));
  setToolTip(tr(
      "Drag the outer stations, a loose spot, or a side of the fixture; or choose one with Space and move it with the "
      "arrows"));
  connect(&desk, &Desk::changed, this, [this] {
    dragging_ = false;
    describe();
    update();
  });
}

void PlanDrawing::describe() {
  if (!test()) return;
  QString words = tr("footprint %1, %2 × %3 stations")
                      .arg(text_of(size_text(test()->bench.width_m, test()->bench.depth_m, desk_.units())))
                      .arg(test()->test.columns)
                      .arg(test()->test.rows);
  if (const auto handle = chosen()) words += tr("; chosen: ") + handle_words(*test(), *handle, desk_.units());
  setAccessibleDescription(words);
}

void PlanDrawing::set_draft(std::optional<record::TestRecord> draft) {
  draft_ = std::move(draft);
  update();
}

const record::TestRecord* PlanDrawing::test() const { return draft_ ? &*draft_ : desk_.test(); }

MapFit PlanDrawing::fit(const Footprint& floor) const { return fit_map(rect(), floor, true, 68); }

std::optional<PlanHandle> PlanDrawing::chosen() const {
  if (!test() || chosen_ < 0) return {};
  const auto handles = plan_handles(*test());
  return chosen_ < std::ssize(handles) ? std::optional(handles[static_cast<std::size_t>(chosen_)]) : std::nullopt;
}

void PlanDrawing::choose(int handle) {
  chosen_ = handle;
  describe();
  update();
}

void PlanDrawing::paintEvent(QPaintEvent*) {
  if (!test()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  const auto laid_out = lay_out(record::footprint_of(test()->bench), record::grid_of(test()->test));
  if (!laid_out) {
    p.setPen(t.bad);
    p.drawText(rect().adjusted(16, 16, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
               text_of(laid_out.problem().sentence()));
    return;
  }
  const Layout& layout = laid_out.value();
  const MapFit f = fit(layout.footprint);
  p.fillRect(f.floor, t.look == Look::Paper ? t.panel : t.ground);
  draw_units(p, f);
  draw_floor(p, f, layout.footprint);
  draw_walk(p, f, layout);
  draw_chosen(p, f, layout);
  {
    PainterCanvas canvas(p);
    drawing::draw_surroundings(canvas, f.plain(), test()->bench, desk_.units(), width());
  }
  const auto handle = chosen();
  p.setPen(t.quiet);
  p.setFont(text_font(11));
  p.drawText(QRectF(f.floor.left(), f.floor.bottom() + 48, width() - f.floor.left(), 60),
             Qt::AlignLeft | Qt::TextWordWrap,
             handle && (hasFocus() || dragging_)
                 ? handle_words(*test(), *handle, desk_.units())
                 : tr("walk starts at the filled mark · dashed: usual footprints · dotted: the sensor's reach"));
  if (hasFocus()) {
    p.setPen(QPen(t.ember, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -2, -2));
  }
}

namespace {
QPolygonF polygon(const MapFit& f, const std::array<Place, 4>& corners) {
  QPolygonF drawn;
  for (const Place& corner : corners) drawn << f.pixel(corner.x_m, corner.y_m);
  return drawn;
}
}  // namespace

void PlanDrawing::draw_units(QPainter& p, const MapFit& f) const {
  QColor fill = theme().light;
  fill.setAlpha(theme().look == Look::Paper ? 110 : 50);
  p.setPen(QPen(theme().quiet, 1));
  p.setBrush(fill);
  for (const auto& corners : units_from_above(*test())) p.drawPolygon(polygon(f, corners));
  p.setBrush(Qt::NoBrush);
}

void PlanDrawing::draw_floor(QPainter& p, const MapFit& f, const Footprint& floor) const {
  p.setBrush(Qt::NoBrush);
  const auto sizes = desk_.units() == UnitSystem::Metric ? usual_metric_sizes() : usual_foot_sizes();
  for (const Footprint& size : sizes) {
    if (size.width_m != size.depth_m || size.width_m >= floor.width_m - 0.01 || size.depth_m >= floor.depth_m - 0.01)
      continue;
    QRectF box(QPointF(), QSizeF(size.width_m * f.scale, size.depth_m * f.scale));
    box.moveCenter(f.floor.center());
    p.setPen(QPen(theme().quiet, 1, Qt::DashLine));
    p.drawRect(box);
  }
  const record::Meter* sensor = test()->meter(test()->test.sensor_id);
  if (const double nearest = sensor ? sensor->closest_approach_m.value_or(0) * f.scale : 0; nearest > 0) {
    p.setPen(QPen(theme().lake, 1, Qt::DotLine));
    p.drawRect(f.floor.adjusted(nearest, nearest, -nearest, -nearest));
  }
}

void PlanDrawing::draw_walk(QPainter& p, const MapFit& f, const Layout& layout) const {
  const Theme& t = theme();
  QPolygonF path;
  for (const int i : evaluation::walk_of(test()->test, layout))
    path << f.pixel(layout.stations[i].x_m, layout.stations[i].y_m);
  p.setPen(QPen(t.rule, 1.2));
  p.drawPolyline(path);
  const double spacing = layout.is_lattice() && layout.columns > 1 ? (layout.xs_m[1] - layout.xs_m[0]) * f.scale : 40;
  const double radius = std::clamp(spacing * 0.12, 1.2, 5.0);
  p.setPen(QPen(t.lake, 1.4));
  p.setBrush(t.panel);
  for (const QPointF& place : path) p.drawEllipse(place, radius, radius);
  if (path.isEmpty()) return;
  p.setBrush(t.ember);
  p.setPen(Qt::NoPen);
  p.drawEllipse(path.first(), radius + 1.5, radius + 1.5);
}

/// The handle at hand, only while it is in use: the plan is read more often than changed.
void PlanDrawing::draw_chosen(QPainter& p, const MapFit& f, const Layout& layout) const {
  const auto handle = chosen();
  if (!handle || !(hasFocus() || dragging_)) return;
  p.setPen(QPen(theme().ember, 2));
  p.setBrush(Qt::NoBrush);
  const auto units = units_from_above(*test());
  switch (handle->kind) {
    case PlanHandle::Margin: {
      const QRectF outer(f.pixel(layout.xs_m.front(), layout.ys_m.back()),
                         f.pixel(layout.xs_m.back(), layout.ys_m.front()));
      p.drawRect(outer);
      for (const QPointF& corner : {outer.topLeft(), outer.topRight(), outer.bottomLeft(), outer.bottomRight()})
        p.fillRect(QRectF(corner - QPointF(4, 4), QSizeF(8, 8)), theme().ember);
      break;
    }
    case PlanHandle::Spot: {
      const Spot s = spot_of(*test(), *handle);
      p.drawEllipse(f.pixel(s.x_m, s.y_m), 9, 9);
      break;
    }
    case PlanHandle::Width: {
      const QPolygonF first = polygon(f, units.front()), last = polygon(f, units.back());
      p.drawLine(first[3], first[0]);
      p.drawLine(last[1], last[2]);
      break;
    }
    case PlanHandle::Depth:
      for (const auto& corners : units) {
        const QPolygonF unit = polygon(f, corners);
        p.drawLine(unit[0], unit[1]);
        p.drawLine(unit[2], unit[3]);
      }
      break;
    case PlanHandle::Spacing:
    case PlanHandle::RowSpacing:
      p.drawPolygon(polygon(f, units.front()));
      p.drawPolygon(polygon(f, units.back()));
      break;
  }
}

void PlanDrawing::mousePressEvent(QMouseEvent* event) {
  if (!test()) return;
  const MapFit f = fit(record::footprint_of(test()->bench));
  const QPointF at = f.meters(event->position());
  const int handle = handle_at(*test(), at.x(), at.y(), grab_px / f.scale);
  if (handle < 0) return;
  dragging_ = !desk_.read_only();
  dragged_ = false;
  setFocus(Qt::MouseFocusReason);
  choose(handle);
}

void PlanDrawing::mouseMoveEvent(QMouseEvent* event) {
  if (!test()) return;
  const MapFit f = fit(record::footprint_of(test()->bench));
  const QPointF at = f.meters(event->position());
  const auto handle = chosen();
  if (!dragging_ || !handle) {
    const int here = handle_at(*test(), at.x(), at.y(), grab_px / f.scale);
    return setCursor(here < 0 ? Qt::ArrowCursor : cursor_of(plan_handles(*test())[static_cast<std::size_t>(here)]));
  }
  dragged_ = true;
  emit dragged(moved(*desk_.test(), *handle, at.x(), at.y()));
}

void PlanDrawing::mouseReleaseEvent(QMouseEvent*) {
  const auto handle = chosen();
  if (std::exchange(dragging_, false) && std::exchange(dragged_, false) && handle && draft_)
    emit moved_to(record::TestRecord(*draft_), *handle);
}

void PlanDrawing::keyPressEvent(QKeyEvent* event) {
  if (!test()) return QWidget::keyPressEvent(event);
  const int count = static_cast<int>(plan_handles(*test()).size());
  if (event->key() == Qt::Key_Space) {
    const int by = event->modifiers() & Qt::ShiftModifier ? count - 1 : 1;
    return choose(chosen_ < 0 ? 0 : (chosen_ + by) % count);
  }
  const int x = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
  const int y = event->key() == Qt::Key_Up ? 1 : event->key() == Qt::Key_Down ? -1 : 0;
  if ((x == 0 && y == 0) || desk_.read_only()) return QWidget::keyPressEvent(event);
  if (!chosen()) choose(0);
  emit moved_to(nudged(*desk_.test(), *chosen(), x, y), *chosen());
}

}  // namespace sunbreak::desktop
