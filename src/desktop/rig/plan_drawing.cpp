#include "desktop/rig/plan_drawing.h"

#include <QPainter>

#include "book/rig_model.h"
#include "book/test_checks.h"
#include "desktop/paint/map_frame.h"
#include "desktop/shell/desk.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {

PlanDrawing::PlanDrawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumSize(240, 240);
  setAccessibleName(tr("Plan of the bench with the stations in walk order"));
  connect(&desk, &Desk::changed, this, [this] {
    if (const book::TestBundle* test = desk_.test())
      setAccessibleDescription(tr("footprint %1, %2 × %3 stations")
                                   .arg(text_of(size_text(test->bench.width_m, test->bench.depth_m, desk_.units())))
                                   .arg(test->test.columns)
                                   .arg(test->test.rows));
    update();
  });
}

void PlanDrawing::set_draft(std::optional<book::TestBundle> draft) {
  draft_ = std::move(draft);
  update();
}

void PlanDrawing::paintEvent(QPaintEvent*) {
  const book::TestBundle* test = draft_ ? &*draft_ : desk_.test();
  if (!test) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  const auto laid_out = lay_out(book::footprint_of(test->bench), book::grid_of(test->test));
  if (!laid_out) {
    p.setPen(t.bad);
    p.drawText(rect().adjusted(16, 16, -16, -16), Qt::AlignCenter | Qt::TextWordWrap,
               text_of(laid_out.problem().sentence()));
    return;
  }
  const Layout& layout = laid_out.value();
  const MapFit fit = fit_map(rect(), layout.footprint, true, 68);
  p.fillRect(fit.floor, t.look == Look::Paper ? t.panel : t.ground);

  const FixtureOutline outline = book::outline_of(test->fixture, test->bench);
  for (int unit = 0; unit < outline.units; ++unit) {
    const double from_middle_m = (unit - (outline.units - 1) / 2.0) * outline.unit_spacing_m;
    QRectF lamp(QPointF(), QSizeF(outline.width_m * fit.scale, outline.depth_m * fit.scale));
    lamp.moveCenter(fit.floor.center() + QPointF(from_middle_m * fit.scale, 0));
    QColor fill(0xF5D073);
    fill.setAlpha(t.look == Look::Paper ? 110 : 50);
    p.fillRect(lamp, fill);
    p.setPen(QPen(t.quiet, 1));
    p.drawRect(lamp);
  }

  p.setBrush(Qt::NoBrush);
  p.setFont(text_font(10));
  const auto sizes = desk_.units() == UnitSystem::Metric ? usual_metric_sizes() : usual_foot_sizes();
  for (const Footprint& size : sizes) {
    if (size.width_m != size.depth_m || size.width_m >= layout.footprint.width_m - 0.01 ||
        size.depth_m >= layout.footprint.depth_m - 0.01)
      continue;
    QRectF box(QPointF(), QSizeF(size.width_m * fit.scale, size.depth_m * fit.scale));
    box.moveCenter(fit.floor.center());
    p.setPen(QPen(t.quiet, 1, Qt::DashLine));
    p.drawRect(box);
  }
  const book::Meter* sensor = test->meter(test->test.sensor_id);
  if (const double nearest = sensor ? sensor->closest_approach_m.value_or(0) * fit.scale : 0; nearest > 0) {
    p.setPen(QPen(t.lake, 1, Qt::DotLine));
    p.drawRect(fit.floor.adjusted(nearest, nearest, -nearest, -nearest));
  }

  const auto order = book::walk_of(test->test, layout);
  QPolygonF path;
  for (const int i : order) path << fit.pixel(layout.stations[i].x_m, layout.stations[i].y_m);
  p.setPen(QPen(t.rule, 1.2));
  p.drawPolyline(path);
  const double spacing = layout.is_lattice() && layout.columns > 1 ? (layout.xs_m[1] - layout.xs_m[0]) * fit.scale : 40;
  const double radius = std::clamp(spacing * 0.12, 1.2, 5.0);
  p.setPen(QPen(t.lake, 1.4));
  p.setBrush(t.panel);
  for (const QPointF& place : path) p.drawEllipse(place, radius, radius);
  if (!path.isEmpty()) {
    p.setBrush(t.ember);
    p.setPen(Qt::NoPen);
    p.drawEllipse(path.first(), radius + 1.5, radius + 1.5);
  }

  paint_surroundings(p, fit, test->bench, desk_.units());
  p.setPen(t.quiet);
  p.setFont(text_font(11));
  p.drawText(QRectF(fit.floor.left(), fit.floor.bottom() + 48, width() - fit.floor.left(), 60),
             Qt::AlignLeft | Qt::TextWordWrap,
             tr("walk starts at the filled mark · dashed: usual footprints · dotted: the sensor's reach"));
}

}  // namespace sunbreak::desktop
