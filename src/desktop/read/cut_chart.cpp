#include "desktop/read/cut_chart.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

CutChart::CutChart(QWidget* parent) : QWidget(parent) {
  setObjectName("cutChart");
  setFixedHeight(132);
  setMouseTracking(true);
  setAccessibleName(tr("Profile along the cut"));
}

void CutChart::show_cut(Cut cut, const drawing::ValueText& text, const std::optional<Band>& band, UnitSystem units) {
  cut_ = std::move(cut), text_ = text, band_ = band, units_ = units;
  range_ = drawing::round_range(cut_.lowest.ppfd, cut_.highest.ppfd);
  setAccessibleDescription(words());
  update();
}

QString CutChart::words() const {
  if (std::isnan(cut_.mean_ppfd)) return tr("Nothing is known along this cut.");
  const auto place = [&](const CutPoint& p) { return text_of(length_text(p.along_m, units_)); };
  QString words =
      tr("mean %1 %6 · lowest %2 at %3 · highest %4 at %5")
          .arg(text_of(text_.text(cut_.mean_ppfd)), text_of(text_.text(cut_.lowest.ppfd)), place(cut_.lowest),
               text_of(text_.text(cut_.highest.ppfd)), place(cut_.highest), text_of(text_.unit));
  if (cut_.known_share < 0.999) words += tr("; %1 % of it is known").arg(100 * cut_.known_share, 0, 'f', 0);
  return words;
}

QRectF CutChart::plot() const { return QRectF(48, 22, width() - 64, height() - 46); }

void CutChart::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  const QRectF box = plot();
  p.setFont(text_font(12));
  p.setPen(t.ink);
  p.drawText(QRectF(0, 0, width() - 16, 18), Qt::AlignLeft | Qt::AlignVCenter,
             QFontMetricsF(p.font()).elidedText(words(), Qt::ElideRight, width() - 16));
  if (cut_.points.empty() || !(range_.high > range_.low)) return;
  p.fillRect(box, t.panel);
  const auto y_of = [&](double value) { return box.bottom() - box.height() * range_.share(value); };
  const auto x_of = [&](double along_m) { return box.left() + box.width() * along_m / cut_.length_m; };
  p.setFont(text_font(11));
  const double step = drawing::round_step(range_.high - range_.low, 3);
  for (double at = std::ceil(range_.low / step - 1e-9) * step; at <= range_.high + 1e-9 * step; at += step) {
    p.setPen(QPen(t.rule, 1));
    p.drawLine(QPointF(box.left(), y_of(at)), QPointF(box.right(), y_of(at)));
    p.setPen(t.quiet);
    p.drawText(QRectF(0, y_of(at) - 7, 42, 14), Qt::AlignRight | Qt::AlignVCenter,
               text_of(drawing::tick_text(at, step)));
  }
  const double unit = meters_per(surface_unit(units_)), step_x = drawing::round_step(cut_.length_m / unit, 8);
  for (double at = 0; at <= cut_.length_m / unit + 1e-9; at += step_x)
    p.drawText(QRectF(x_of(at * unit) - 30, box.bottom() + 4, 60, 14), Qt::AlignCenter, text_of(short_number(at, 1)));
  p.drawText(QRectF(0, box.bottom() + 4, 42, 14), Qt::AlignRight, text_of(symbol(surface_unit(units_))));
  if (band_)
    for (const double end : {band_->low, band_->high})
      if (end > range_.low && end < range_.high) {
        p.setPen(QPen(t.ember, 1, Qt::DashLine));
        p.drawLine(QPointF(box.left(), y_of(end)), QPointF(box.right(), y_of(end)));
      }
  QPolygonF line;
  const auto draw = [&] {
    p.setPen(QPen(t.lake, 2));
    p.drawPolyline(line);
    line.clear();
  };
  for (const CutPoint& point : cut_.points)
    if (std::isnan(point.ppfd))
      draw();
    else
      line << QPointF(x_of(point.along_m), y_of(point.ppfd));
  draw();
  if (!pointed_m_) return;
  const auto near = std::min_element(cut_.points.begin(), cut_.points.end(), [&](auto& a, auto& b) {
    return std::abs(a.along_m - *pointed_m_) < std::abs(b.along_m - *pointed_m_);
  });
  if (std::isnan(near->ppfd)) return;
  const QPointF at(x_of(near->along_m), y_of(near->ppfd));
  p.setPen(QPen(t.ember, 1));
  p.drawLine(QPointF(at.x(), box.top()), QPointF(at.x(), box.bottom()));
  p.setPen(t.ink);
  p.setFont(text_font(12, true));
  p.drawText(QRectF(std::clamp(at.x() + 6, box.left(), box.right() - 150), box.top() + 2, 150, 16),
             Qt::AlignLeft | Qt::AlignVCenter,
             tr("%1 at %2").arg(text_of(text_.text(near->ppfd)), text_of(length_text(near->along_m, units_))));
}

void CutChart::mouseMoveEvent(QMouseEvent* event) {
  const double share = (event->position().x() - plot().left()) / plot().width();
  pointed_m_ = share >= 0 && share <= 1 ? std::optional(share * cut_.length_m) : std::nullopt;
  update();
}

void CutChart::leaveEvent(QEvent*) {
  pointed_m_.reset();
  update();
}

}  // namespace sunbreak::desktop
