#include "desktop/paint/charts.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "desktop/desk/desk.h"
#include "desktop/paint/map_painter.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {
constexpr int bar_pitch = 18, label_width = 64, value_width = 48;
}

RingsChart::RingsChart(QWidget* parent) : QWidget(parent) {
  setAccessibleName(tr("Mean PPFD of each ring, wall to center"));
}

void RingsChart::show_rings(std::vector<Ring> rings, const report::ScaleRange& range, const std::optional<Band>& band,
                            UnitSystem units) {
  rings_ = std::move(rings), range_ = range, band_ = band, units_ = units;
  setFixedHeight(static_cast<int>(rings_.size()) * bar_pitch + 4);
  QStringList words;
  for (const Ring& ring : rings_) words << text_of(ppfd_text(ring.mean_ppfd));
  setAccessibleDescription(words.join(", "));
  update();
}

void RingsChart::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = theme();
  const double left = label_width + 8, room = width() - left - value_width;
  double longest = band_ ? band_->low : 1;
  for (const Ring& ring : rings_)
    if (ring.read > 0) longest = std::max(longest, ring.mean_ppfd);
  const double unit = meters_per(surface_unit(units_));
  double y = 2;
  for (const Ring& ring : rings_) {
    p.setFont(text_font(11));
    p.setPen(t.quiet);
    p.drawText(QRectF(0, y, label_width, bar_pitch - 4), Qt::AlignRight | Qt::AlignVCenter,
               text_of(short_number(ring.outer_m / unit, 1) + "–" + short_number(ring.inner_m / unit, 1)));
    if (ring.read == 0) {
      p.drawText(QRectF(left, y, 80, bar_pitch - 4), Qt::AlignLeft | Qt::AlignVCenter, tr("not read"));
    } else {
      const QRectF bar(left, y, std::max(1.0, room * ring.mean_ppfd / longest), bar_pitch - 5);
      p.fillRect(bar, qcolor(report::light_color(range_.share(ring.mean_ppfd))));
      p.setPen(QPen(t.rule, 1));
      p.drawRect(bar);
      p.setPen(t.ink);
      p.setFont(text_font(12, true));
      p.drawText(QRectF(width() - value_width, y, value_width - 4, bar_pitch - 4), Qt::AlignRight | Qt::AlignVCenter,
                 text_of(ppfd_text(ring.mean_ppfd)));
    }
    y += bar_pitch;
  }
  if (!band_) return;
  const double x = left + room * band_->low / longest;
  p.setPen(QPen(t.ember, 1, Qt::DashLine));
  p.drawLine(QPointF(x, 0), QPointF(x, height()));
}

AreaCurveChart::AreaCurveChart(QWidget* parent) : QWidget(parent) {
  setFixedHeight(148);
  setMouseTracking(true);
  setAccessibleName(tr("Area at or above each PPFD"));
}

void AreaCurveChart::show_curve(std::optional<AreaCurve> curve, double area_m2, double highest_ppfd,
                                const std::optional<Band>& band, UnitSystem units) {
  curve_ = std::move(curve), area_m2_ = area_m2, range_ = report::round_range(0, highest_ppfd), band_ = band,
  units_ = units;
  update();
}

QRectF AreaCurveChart::plot() const { return QRectF(label_width + 8, 8, width() - label_width - 24, height() - 44); }

void AreaCurveChart::paintEvent(QPaintEvent*) {
  if (!curve_) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  const QRectF box = plot();
  p.fillRect(box, t.ground);
  p.setFont(text_font(11));
  p.setPen(t.quiet);
  p.drawText(QRectF(0, box.top() - 6, label_width, 14), Qt::AlignRight | Qt::AlignVCenter,
             text_of(area_text(area_m2_, units_)));
  p.drawText(QRectF(0, box.bottom() - 8, label_width, 14), Qt::AlignRight | Qt::AlignVCenter, "0");
  const double step = report::round_step(range_.high, 5);
  for (double at = 0; at <= range_.high + 1e-9; at += step)
    p.drawText(QRectF(box.left() + box.width() * at / range_.high - 30, box.bottom() + 4, 60, 14), Qt::AlignCenter,
               text_of(short_number(at, 1)));
  p.drawText(QRectF(box.left(), box.bottom() + 19, box.width(), 14), Qt::AlignRight, tr("µmol/m²/s"));

  QPolygonF line;
  for (int i = 0; i <= 160; ++i) {
    const double ppfd = range_.high * i / 160;
    line << QPointF(box.left() + box.width() * i / 160,
                    box.bottom() - box.height() * curve_->area_m2_at_or_above(ppfd) / area_m2_);
  }
  p.setPen(QPen(t.lake, 2));
  p.drawPolyline(line);

  const std::optional<double> mark = pointed_ ? pointed_ : band_ ? std::optional(band_->low) : std::nullopt;
  if (!mark || *mark > range_.high) return;
  const double x = box.left() + box.width() * *mark / range_.high;
  p.setPen(QPen(t.ember, 1, Qt::DashLine));
  p.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
  const QString words = tr("%1 ≥ %2").arg(text_of(area_text(curve_->area_m2_at_or_above(*mark), units_)),
                                          text_of(short_number(*mark, 0)));
  p.setFont(text_font(12, true));
  const double w = QFontMetricsF(p.font()).horizontalAdvance(words) + 8;
  const bool left = x + w + 6 > box.right();
  const QRectF tag(left ? x - w - 4 : x + 4, left ? box.bottom() - 24 : box.top() + 4, w, 18);
  p.fillRect(tag, t.ground);
  p.setPen(t.ink);
  p.drawText(tag, Qt::AlignCenter, words);
}

void AreaCurveChart::mouseMoveEvent(QMouseEvent* event) {
  const QRectF box = plot();
  const double share = (event->position().x() - box.left()) / box.width();
  pointed_ = share >= 0 && share <= 1 ? std::optional(share * range_.high) : std::nullopt;
  update();
}

void AreaCurveChart::leaveEvent(QEvent*) {
  pointed_.reset();
  update();
}

}  // namespace sunbreak::desktop
