#include "desktop/shell/mast.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/labels.h"
#include "desktop/widgets/text.h"
#include "evaluation/rig_model.h"
#include "record/configurations.h"

namespace sunbreak::desktop {

Mast::Mast(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("mast");
  setAttribute(Qt::WA_StyledBackground);
  setFixedWidth(208);
  setFocusPolicy(Qt::TabFocus);
  setAccessibleName(tr("Mast: heights and dimmer settings of the test"));
  setToolTip(
      tr("Page Up and Page Down change the height, [ and ] the dimmer setting, { and } the configuration; a click "
         "between the rungs stands there, "
         "for a predicted sweep"));
  connect(&desk, &Desk::changed, this, [this] {
    describe();
    update();
  });
}

void Mast::describe() {
  if (!desk_.rung() || !desk_.stop()) return;
  if (desk_.between_m())
    return setAccessibleDescription(
        tr("Between the rungs at %1, predicted").arg(text_of(length_text(*desk_.between_m(), desk_.units()))));
  QString words = tr("Height %1, dimmer %2 %")
                      .arg(text_of(length_text(desk_.rung()->height_m, desk_.units())))
                      .arg(desk_.stop()->percent);
  if (!desk_.test()->configurations.empty())
    words.prepend(tr("%1. ").arg(text_of(record::configuration_name(*desk_.test(), desk_.test()->configuration_id))));
  if (const evaluation::SweepView* view = desk_.view())
    words += tr(": %1 of %2 stations read").arg(view->read()).arg(view->states.size());
  if (const int open = desk_.sweep() ? desk_.worked_out().open_checks_of(desk_.sweep()->id) : 0; open > 0)
    words += ", " + counted(open, tr("open check"), tr("open checks"));
  setAccessibleDescription(words);
}

void Mast::paintEvent(QPaintEvent*) {
  const record::TestRecord* test = desk_.test();
  if (!test) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  spots_.clear();
  draw_header(p);

  double top_m = 0.3;
  for (const record::Rung& rung : test->rungs) top_m = std::max(top_m, rung.height_m);
  top_m = std::max(test->bench.height_m.value_or(top_m * 1.3), top_m * 1.12);
  const QRectF room(44, 68, 104, height() - 68 - 84);
  const double scale = std::min(room.height() / top_m, room.width() / test->bench.width_m);
  const QSizeF size(test->bench.width_m * scale, top_m * scale);
  const QRectF bench(room.center().x() - size.width() / 2, room.top(), size.width(), size.height());
  bench_ = bench, scale_ = scale;
  draw_bench(p, bench, scale);
  draw_between(p, bench, scale);
  draw_stops(p);
  if (hasFocus()) {
    p.setPen(QPen(theme().ember, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(2, 2, -4, -3));
  }
}

void Mast::draw_header(QPainter& p) const {
  const Theme& t = theme();
  p.setPen(t.ink);
  p.setFont(text_font(14, true));
  p.drawText(QRectF(16, 12, width() - 24, 20), Qt::AlignLeft | Qt::AlignVCenter,
             QFontMetrics(p.font()).elidedText(text_of(desk_.test()->fixture.name), Qt::ElideRight, width() - 28));
  p.setFont(text_font(11));
  double below = 32;
  if (!desk_.test()->configurations.empty()) {
    p.setPen(t.ember);
    p.drawText(QRectF(16, below, width() - 24, 16), Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(
                   text_of(record::configuration_name(*desk_.test(), desk_.test()->configuration_id)), Qt::ElideRight,
                   width() - 28));
    below += 16;
  }
  p.setPen(t.quiet);
  p.drawText(QRectF(16, below, width() - 24, 16), Qt::AlignLeft | Qt::AlignVCenter,
             desk_.units() == UnitSystem::Metric ? tr("from the side · heights in cm")
                                                 : tr("from the side · heights in inches"));
}

/// Where the rungs' names stand, highest first: at their heights, but a line apart at least.
std::vector<double> Mast::label_places(double floor_y, double scale) const {
  constexpr double line_px = 17;
  const auto& rungs = desk_.test()->rungs;
  std::vector<double> places(rungs.size());
  double below = floor_y + line_px - 4;
  for (std::size_t r = rungs.size(); r-- > 0;)
    below = places[r] = std::min(floor_y - rungs[r].height_m * scale, below - line_px);
  return places;
}

void Mast::draw_bench(QPainter& p, const QRectF& box, double scale) {
  const Theme& t = theme();
  const record::TestRecord& test = *desk_.test();
  const auto wall = [&](const std::string& kind, double x) {
    p.setPen(QPen(t.quiet, kind == "open" ? 1 : 3, kind == "open" ? Qt::DotLine : Qt::SolidLine));
    p.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
  };
  wall(test.bench.wall_left, box.left());
  wall(test.bench.wall_right, box.right());
  p.setPen(QPen(t.quiet, test.bench.wall_left == "open" ? 1 : 3,
                test.bench.wall_left == "open" ? Qt::DotLine : Qt::SolidLine));
  p.drawLine(box.topLeft(), box.topRight());
  p.setPen(QPen(t.ink, 4));
  p.drawLine(QPointF(box.left() - 6, box.bottom()), QPointF(box.right() + 6, box.bottom()));
  p.setPen(t.quiet);
  p.setFont(text_font(11));
  p.drawText(QRectF(0, box.bottom() + 6, width(), 16), Qt::AlignCenter, tr("sensor plane"));

  const std::vector<double> label_at = label_places(box.bottom(), scale);
  for (std::size_t r = 0; r < test.rungs.size(); ++r) {
    const record::Rung& rung = test.rungs[r];
    const double y = box.bottom() - rung.height_m * scale, label_y = label_at[r];
    const bool here = desk_.rung() && rung.id == desk_.rung()->id && !desk_.between_m();
    const QColor color = here ? t.ember : t.ink;
    if (here) draw_fixture(p, box, scale, y);
    p.setPen(QPen(here ? t.ember : t.quiet, here ? 2 : 1, here ? Qt::SolidLine : Qt::DotLine));
    p.drawLine(QPointF(box.left() - 3, y), QPointF(box.right() + 3, y));
    // Where rungs are close to each other their names and marks stand apart, led to by a line.
    p.setPen(QPen(here ? t.ember : t.quiet, 1));
    p.drawLine(QPointF(box.left() - 3, y), QPointF(box.left() - 7, label_y));
    p.drawLine(QPointF(box.right() + 3, y), QPointF(box.right() + 8, label_y));
    p.setPen(color);
    p.setFont(text_font(13, here));
    p.drawText(QRectF(0, label_y - 8, box.left() - 8, 16), Qt::AlignRight | Qt::AlignVCenter,
               text_of(short_number(from_m(rung.height_m, surface_unit(desk_.units())), 1)));
    const double pitch = std::min(14.0, 46.0 / static_cast<double>(std::max<std::size_t>(test.stops.size(), 1)));
    double x = box.right() + 10;
    spots_.push_back({QRectF(0, label_y - 8, box.right() + 8, 16), rung.id, desk_.stop() ? desk_.stop()->id : 0});
    for (const record::Stop& stop : test.stops) {
      if (!test.planned(rung, stop) && !test.sweep(rung.id, stop.id)) continue;
      const QRectF square(x, label_y - pitch * 0.36, pitch * 0.72, pitch * 0.72);
      const bool chosen = here && desk_.stop() && stop.id == desk_.stop()->id;
      draw_sweep_mark(p, square, rung.id, stop.id, chosen ? t.ember : t.ink);
      spots_.push_back({square.adjusted(-2, -4, 2, 4), rung.id, stop.id});
      x += pitch;
    }
  }
}

/// Where one stands between the rungs, looking at a prediction.
void Mast::draw_between(QPainter& p, const QRectF& box, double scale) {
  if (!desk_.between_m()) return;
  const Theme& t = theme();
  const double y = box.bottom() - *desk_.between_m() * scale;
  draw_fixture(p, box, scale, y);
  p.setPen(QPen(t.ember, 2, Qt::DashLine));
  p.drawLine(QPointF(box.left() - 3, y), QPointF(box.right() + 3, y));
  const QString words = tr("%1 predicted").arg(text_of(length_text(*desk_.between_m(), desk_.units())));
  p.setFont(text_font(12, true));
  const QRectF place(box.left(), y - 24, box.width(), 16);
  p.fillRect(QRectF(place.center().x() - QFontMetricsF(p.font()).horizontalAdvance(words) / 2 - 3, place.top(),
                    QFontMetricsF(p.font()).horizontalAdvance(words) + 6, 16),
             t.panel);
  p.setPen(t.ember);
  p.drawText(place, Qt::AlignCenter | Qt::TextDontClip, words);
}

void Mast::draw_fixture(QPainter& p, const QRectF& box, double scale, double lamp_y) const {
  const Theme& t = theme();
  const record::TestRecord& test = *desk_.test();
  const double bench_scale = box.width() / test.bench.width_m;
  const double half =
      std::clamp(whole_width_m(evaluation::outline_of(test)), 0.05, test.bench.width_m) * bench_scale / 2;
  const double middle = box.center().x();
  p.setPen(QPen(t.quiet, 1));
  p.drawLine(QPointF(middle, box.top()), QPointF(middle - half * 0.8, lamp_y - 5));
  p.drawLine(QPointF(middle, box.top()), QPointF(middle + half * 0.8, lamp_y - 5));
  p.setPen(QPen(theme().light, 2));
  const double spread = std::min(box.width() / 2 - half - 3, 0.25 * test.bench.width_m * scale);
  p.drawLine(QPointF(middle - half, lamp_y), QPointF(middle - half - spread, box.bottom() - 3));
  p.drawLine(QPointF(middle + half, lamp_y), QPointF(middle + half + spread, box.bottom() - 3));
  p.fillRect(QRectF(middle - half, lamp_y - 7, half * 2, 6), t.ink);
}

void Mast::draw_sweep_mark(QPainter& p, const QRectF& square, record::Id rung_id, record::Id stop_id,
                           const QColor& color) const {
  const record::TestRecord& test = *desk_.test();
  const record::Sweep* sweep = test.sweep(rung_id, stop_id);
  const evaluation::SweepDigest* digest = sweep ? desk_.digest_of(sweep->id) : nullptr;
  p.setPen(QPen(color, 1));
  p.setBrush(Qt::NoBrush);
  p.drawRect(square);
  if (!digest || digest->read + digest->missing == 0) return;
  const double done = static_cast<double>(digest->read + digest->missing) / digest->stations;
  p.fillRect(QRectF(square.left(), square.bottom() - square.height() * done, square.width(), square.height() * done),
             color);
  if (digest->missing > 0) {
    p.setPen(QPen(theme().panel, 1.5));
    p.drawLine(square.topLeft(), square.bottomRight());
  }
  if (desk_.worked_out().open_checks_of(sweep->id) == 0) return;
  const QPointF corner = square.topRight() + QPointF(3, -3);
  p.setPen(QPen(theme().panel, 1));
  p.setBrush(theme().attention);
  p.drawPolygon(QPolygonF({corner, corner - QPointF(7, 0), corner + QPointF(0, 7)}));
}

void Mast::draw_stops(QPainter& p) {
  const Theme& t = theme();
  const record::TestRecord& test = *desk_.test();
  p.setFont(text_font(12));
  p.setPen(t.quiet);
  p.drawText(QRectF(16, height() - 52, 80, 16), Qt::AlignLeft | Qt::AlignVCenter, tr("Dimmer, %"));
  double x = 16;
  for (const record::Stop& stop : test.stops) {
    const bool here = desk_.stop() && stop.id == desk_.stop()->id;
    const QString words = text_of(short_number(stop.percent, 1));
    p.setFont(text_font(13, here));
    const double w = QFontMetricsF(p.font()).horizontalAdvance(words) + 14;
    if (x + w > width() - 8) break;
    const QRectF box(x, height() - 32, w, 22);
    if (here) p.fillRect(QRectF(box.left(), box.bottom() - 2, box.width(), 2), t.ember);
    p.setPen(here ? t.ember : t.ink);
    p.drawText(box, Qt::AlignCenter, words);
    spots_.push_back({box, desk_.rung() ? desk_.rung()->id : 0, stop.id});
    x += w + 2;
  }
}

void Mast::mousePressEvent(QMouseEvent* event) {
  for (auto spot = spots_.rbegin(); spot != spots_.rend(); ++spot)
    if (spot->place.contains(event->position())) return desk_.choose(spot->rung_id, spot->stop_id);
  // Between the rungs, to whole centimeters.
  constexpr double step_m = 0.01;
  if (desk_.test() && bench_.contains(event->position()))
    desk_.stand_between(std::round((bench_.bottom() - event->position().y()) / scale_ / step_m) * step_m);
}

void Mast::keyPressEvent(QKeyEvent* event) {
  if (!desk_.step_by_arrow(event->key())) QWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
