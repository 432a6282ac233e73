#include "desktop/warmup/heat_chart.h"

#include <QPainter>
#include <algorithm>
#include <map>

#include "desktop/paint/round_steps.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr double heat_left_room = 40, heat_right_room = 96, heat_axis_room = 20, heat_top_room = 16, heat_mark_px = 3.5,
                 heat_line_px = 14;

bool is_drawn(const evaluation::HeatRow& row) { return row.minutes_on && *row.minutes_on >= 0 && row.surface_c; }

}  // namespace

HeatChart::HeatChart(QWidget* parent) : QWidget(parent) {
  setObjectName("heatChart");
  setFixedHeight(170);
  setAccessibleName(tr("Temperatures against the time since switch-on"));
}

bool HeatChart::worth_showing() const { return std::count_if(rows_.begin(), rows_.end(), is_drawn) >= 2; }

void HeatChart::show_heat(std::vector<evaluation::HeatRow> rows, std::optional<double> limit_c, UnitSystem units) {
  rows_ = std::move(rows), limit_c_ = limit_c, units_ = units;
  setVisible(worth_showing());
  QStringList words;
  for (const evaluation::HeatRow& row : rows_)
    if (is_drawn(row))
      words << tr("%1 after %2 min: %3 %4")
                   .arg(text_of(row.place))
                   .arg(*row.minutes_on, 0, 'f', 0)
                   .arg(shown_temperature(row.surface_c.value(), units_), 0, 'f', 1)
                   .arg(text_of(std::string(temperature_unit(units_))));
  setAccessibleDescription(words.join("; "));
  update();
}

void HeatChart::paintEvent(QPaintEvent*) {
  const Theme& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const QRectF box(heat_left_room, heat_top_room, width() - heat_left_room - heat_right_room,
                   height() - heat_top_room - heat_axis_room);
  std::map<std::string, std::vector<QPointF>> places;
  double last = 1, low = INFINITY, high = -INFINITY;
  for (const evaluation::HeatRow& row : rows_) {
    if (!is_drawn(row)) continue;
    const double y = shown_temperature(row.surface_c.value(), units_);
    places[row.place].emplace_back(*row.minutes_on, y);
    last = std::max(last, *row.minutes_on);
    low = std::min(low, y), high = std::max(high, y);
  }
  if (places.empty()) return;
  double limit = 0;
  if (limit_c_) limit = shown_temperature(*limit_c_, units_), high = std::max(high, limit);
  const double margin = std::max(2.0, 0.08 * (high - low));
  low -= margin, high += margin;
  const auto x_of = [&](double minutes) { return box.left() + box.width() * minutes / (1.05 * last); };
  const auto y_of = [&](double degrees) { return box.bottom() - box.height() * (degrees - low) / (high - low); };
  p.setFont(text_font(11));
  for (const double y : round_steps(low, high, 4)) {
    p.setPen(QPen(t.rule, 1));
    p.drawLine(QPointF(box.left(), y_of(y)), QPointF(box.right(), y_of(y)));
    p.setPen(t.quiet);
    p.drawText(QRectF(0, y_of(y) - 8, heat_left_room - 6, 16), Qt::AlignRight | Qt::AlignVCenter, QString::number(y));
  }
  for (const double x : round_steps(0, last, 5)) {
    p.setPen(t.quiet);
    p.drawText(QRectF(x_of(x) - 30, box.bottom() + 4, 60, 16), Qt::AlignCenter, tr("%1 min").arg(x));
  }
  p.drawText(QRectF(0, 0, heat_left_room - 6, 14), Qt::AlignRight | Qt::AlignVCenter,
             text_of(std::string(temperature_unit(units_))));
  if (limit_c_) {
    p.setPen(QPen(t.bad, 1, Qt::DashLine));
    p.drawLine(QPointF(box.left(), y_of(limit)), QPointF(box.right(), y_of(limit)));
    p.setPen(t.bad);
    p.drawText(QRectF(box.left() + 4, y_of(limit) - 16, 120, 14), Qt::AlignLeft | Qt::AlignVCenter, tr("limit"));
  }
  std::vector<std::pair<double, QString>> names;
  for (auto& [place, points] : places) {
    std::ranges::sort(points, {}, &QPointF::x);
    QPolygonF line;
    for (const QPointF& point : points) line << QPointF(x_of(point.x()), y_of(point.y()));
    p.setPen(QPen(t.lake, 1.4));
    p.drawPolyline(line);
    p.setBrush(t.panel);
    for (const QPointF& mark : line) p.drawEllipse(mark, heat_mark_px, heat_mark_px);
    p.setBrush(Qt::NoBrush);
    names.emplace_back(line.back().y(), text_of(place));
  }
  // Names stand beside the last reading, a line apart.
  std::ranges::sort(names);
  double at = -INFINITY;
  p.setPen(t.ink);
  for (const auto& [y, name] : names) {
    at = std::max(y, at + heat_line_px);
    p.drawText(QRectF(box.right() + 6, at - 8, heat_right_room - 8, 16), Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(name, Qt::ElideRight, static_cast<int>(heat_right_room) - 8));
  }
}

}  // namespace sunbreak::desktop
