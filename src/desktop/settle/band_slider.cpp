#include "desktop/settle/band_slider.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

constexpr double end_px = 10, line_y = 24, whole_ppfd = 5;

}  // namespace

BandSlider::BandSlider(QWidget* parent) : QWidget(parent) {
  setObjectName("bandSlider");
  setFocusPolicy(Qt::StrongFocus);
  setFixedHeight(34);
  setMinimumWidth(180);
  setToolTip(tr("The band of PPFD: drag its ends. Arrow keys move the low end, with Shift the high one."));
}

void BandSlider::show_band(const Band& band, double highest_ppfd) {
  if (held_ != Nothing) return;
  band_ = band;
  highest_ppfd_ = std::max(highest_ppfd, band.high * 1.1);
  setAccessibleName(tr("Band from %1 to %2 µmol/m²/s").arg(band.low, 0, 'f', 0).arg(band.high, 0, 'f', 0));
  update();
}

double BandSlider::x_of(double ppfd) const { return end_px + ppfd / highest_ppfd_ * (width() - 2 * end_px); }
double BandSlider::ppfd_of(double x) const {
  const double ppfd = (x - end_px) / (width() - 2 * end_px) * highest_ppfd_;
  return whole_ppfd * std::round(std::clamp(ppfd, 0.0, highest_ppfd_) / whole_ppfd);
}

void BandSlider::move_end(bool high, double ppfd) {
  (high ? band_.high : band_.low) = ppfd;
  band_.low = std::clamp(band_.low, whole_ppfd, std::max(band_.high - whole_ppfd, whole_ppfd));
  band_.high = std::max(band_.high, band_.low + whole_ppfd);
  update();
}

void BandSlider::paintEvent(QPaintEvent*) {
  const Theme& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(t.rule, 2));
  p.drawLine(QPointF(end_px, line_y), QPointF(width() - end_px, line_y));
  p.setPen(QPen(hasFocus() ? t.ember : t.ink, 4));
  p.drawLine(QPointF(x_of(band_.low), line_y), QPointF(x_of(band_.high), line_y));
  p.setFont(text_font(11, true));
  const double middle = (x_of(band_.low) + x_of(band_.high)) / 2;
  for (const bool high : {false, true}) {
    const double x = x_of(high ? band_.high : band_.low);
    p.setPen(QPen(hasFocus() ? t.ember : t.ink, 2));
    p.setBrush(t.panel);
    p.drawEllipse(QPointF(x, line_y), 6, 6);
    // Names stand outward where the ends are close.
    const double at = high ? std::max(x, middle + 20) : std::min(x, middle - 20);
    p.setPen(t.ink);
    p.drawText(QRectF(std::clamp(at - 24, 0.0, width() - 48.0), 0, 48, 16), Qt::AlignCenter,
               QString::number(high ? band_.high : band_.low, 'f', 0));
  }
}

void BandSlider::mousePressEvent(QMouseEvent* event) {
  const double x = event->position().x();
  held_ = std::abs(x - x_of(band_.low)) <= std::abs(x - x_of(band_.high)) ? Low : High;
  mouseMoveEvent(event);
}

void BandSlider::mouseMoveEvent(QMouseEvent* event) {
  if (held_ == Nothing) return;
  move_end(held_ == High, ppfd_of(event->position().x()));
  emit dragged(band_.low, band_.high);
}

void BandSlider::mouseReleaseEvent(QMouseEvent*) {
  if (held_ == Nothing) return;
  held_ = Nothing;
  emit chosen(band_.low, band_.high);
}

void BandSlider::keyPressEvent(QKeyEvent* event) {
  const int way = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
  if (way == 0) return QWidget::keyPressEvent(event);
  const bool high = event->modifiers() & Qt::ShiftModifier;
  move_end(high, (high ? band_.high : band_.low) + way * whole_ppfd);
  emit chosen(band_.low, band_.high);
}

}  // namespace sunbreak::desktop
