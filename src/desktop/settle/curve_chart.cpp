#include "desktop/settle/curve_chart.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "desktop/paint/round_steps.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

constexpr double chart_left_px = 56, chart_right_px = 12, chart_top_px = 40, chart_bottom_px = 40;

QString tick_text(double value, double step) {
  const int decimals = step >= 1 ? 0 : step >= 0.1 ? 1 : 2;
  return QString::number(std::abs(value) < 1e-9 ? 0 : value, 'f', decimals);
}

}  // namespace

CurveChart::CurveChart(QWidget* parent) : QWidget(parent) { setMinimumSize(260, 180); }

void CurveChart::show_curve(Curve curve) {
  curve_ = std::move(curve);
  if (!curve_.predicted.empty())
    setAccessibleName(tr("%1 against %2: %3 to %4")
                          .arg(curve_.y_name, curve_.x_name)
                          .arg(curve_.predicted.front().y, 0, 'g', 3)
                          .arg(curve_.predicted.back().y, 0, 'g', 3));
  update();
}

void CurveChart::paintEvent(QPaintEvent*) {
  const Theme& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const QRectF r = QRectF(rect()).adjusted(chart_left_px, chart_top_px, -chart_right_px, -chart_bottom_px);
  p.setFont(text_font(12, true));
  p.setPen(t.ink);
  p.drawText(QRectF(0, 0, width(), 20), Qt::AlignLeft | Qt::AlignVCenter, curve_.y_name);
  p.setPen(QPen(t.rule, 1));
  p.drawRect(r);
  p.setFont(text_font(11));
  if (curve_.predicted.empty()) {
    p.setPen(t.quiet);
    p.drawText(r, Qt::AlignCenter, tr("nothing is known yet"));
    return;
  }
  double x0 = curve_.predicted.front().x, x1 = curve_.predicted.back().x, y0 = INFINITY, y1 = -INFINITY;
  for (const Point& point : curve_.predicted) {
    y0 = std::min(y0, point.y - point.expanded);
    y1 = std::max(y1, point.y + point.expanded);
  }
  for (const QPointF& at : curve_.measured) y0 = std::min(y0, at.y()), y1 = std::max(y1, at.y());
  if (curve_.limit) y0 = std::min(y0, *curve_.limit), y1 = std::max(y1, *curve_.limit);
  if (x1 <= x0) x0 -= 1, x1 += 1;
  const double margin = std::max((y1 - y0) * 0.06, 1e-6);
  y0 -= margin, y1 += margin;
  const auto place = [&](double x, double y) {
    return QPointF(r.left() + (x - x0) / (x1 - x0) * r.width(), r.bottom() - (y - y0) / (y1 - y0) * r.height());
  };
  const auto x_ticks = round_steps(x0, x1, std::max(2, static_cast<int>(r.width() / 60)));
  const auto y_ticks = round_steps(y0, y1, 5);
  const auto step_of = [](const std::vector<double>& ticks) { return ticks.size() > 1 ? ticks[1] - ticks[0] : 1; };
  for (const double x : x_ticks) {
    const double at = place(x, y0).x();
    p.setPen(t.quiet);
    p.drawLine(QPointF(at, r.bottom()), QPointF(at, r.bottom() + 4));
    p.drawText(QRectF(at - 28, r.bottom() + 5, 56, 14), Qt::AlignCenter, tick_text(x, step_of(x_ticks)));
  }
  for (const double y : y_ticks) {
    const double at = place(x0, y).y();
    p.setPen(QPen(t.rule, 1, Qt::DotLine));
    p.drawLine(QPointF(r.left(), at), QPointF(r.right(), at));
    p.setPen(t.quiet);
    p.drawText(QRectF(0, at - 8, r.left() - 6, 16), Qt::AlignRight | Qt::AlignVCenter, tick_text(y, step_of(y_ticks)));
  }
  p.setPen(t.quiet);
  p.drawText(QRectF(r.left(), r.bottom() + 21, r.width(), 16), Qt::AlignCenter, curve_.x_name);
  double free_from = r.left() - 100;
  for (const auto& [x, words] : curve_.above) {
    const double at = place(x, y1).x();
    if (at < free_from || at < r.left() - 1 || at > r.right() + 1) continue;
    p.drawLine(QPointF(at, r.top() - 4), QPointF(at, r.top()));
    p.drawText(QRectF(at - 30, r.top() - 19, 60, 14), Qt::AlignCenter, words);
    free_from = at + 56;
  }
  p.setClipRect(r.adjusted(-1, -1, 1, 1));
  QPainterPath band, line;
  for (std::size_t i = 0; i < curve_.predicted.size(); ++i) {
    const Point& at = curve_.predicted[i];
    const QPointF top = place(at.x, at.y + at.expanded), middle = place(at.x, at.y);
    if (i == 0) {
      band.moveTo(top);
      line.moveTo(middle);
    } else {
      band.lineTo(top);
      line.lineTo(middle);
    }
  }
  for (std::size_t i = curve_.predicted.size(); i-- > 0;)
    band.lineTo(place(curve_.predicted[i].x, curve_.predicted[i].y - curve_.predicted[i].expanded));
  QColor veil = t.lake;
  veil.setAlpha(46);
  p.fillPath(band, veil);
  p.setPen(QPen(t.lake, 2, Qt::DashLine));
  p.drawPath(line);
  if (curve_.limit) {
    p.setPen(QPen(t.attention, 1.5));
    p.drawLine(place(x0, *curve_.limit), place(x1, *curve_.limit));
  }
  if (curve_.here) {
    p.setPen(QPen(t.ember, 1.5, Qt::DashLine));
    p.drawLine(place(*curve_.here, y0), place(*curve_.here, y1));
  }
  p.setPen(QPen(t.ink, 1.5));
  p.setBrush(t.ink);
  for (const QPointF& at : curve_.measured) {
    const QPointF middle = place(at.x(), at.y());
    p.drawRect(QRectF(middle.x() - 3, middle.y() - 3, 6, 6));
  }
}

}  // namespace sunbreak::desktop
