#include "desktop/paint/map_frame.h"

#include <QCoreApplication>
#include <algorithm>
#include <cmath>

#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

const QColor dim_color(255, 253, 246, 120), bright_color(20, 27, 31, 130);

void paint_wall(QPainter& p, const std::string& kind, const QPointF& from, const QPointF& to, const QPointF& out) {
  const Theme& t = theme();
  if (kind == "open") {
    p.setPen(QPen(t.quiet, 1, Qt::DotLine));
    p.drawLine(from + out, to + out);
    return;
  }
  p.setPen(QPen(kind == "dark" ? t.ink : t.quiet, kind == "dark" ? 4 : 1.4));
  p.drawLine(from + out * 3, to + out * 3);
  if (kind != "dark" && !kind.empty()) p.drawLine(from + out * 6, to + out * 6);
}

/// A gap in the front wall with a leaf across it.
void paint_door(QPainter& p, const QRectF& floor, const std::string& front) {
  if (front == "open") return;
  const QRectF leaf(floor.center().x() - floor.width() * 0.14, floor.bottom() + 2, floor.width() * 0.28, 5);
  p.fillRect(leaf.adjusted(-1, -1, 1, 1), theme().ground);
  p.setPen(QPen(theme().quiet, 1));
  p.setBrush(theme().panel);
  p.drawRect(leaf);
  p.setBrush(Qt::NoBrush);
}

void paint_rulers(QPainter& p, const MapFit& fit, UnitSystem units) {
  const double unit = meters_per(surface_unit(units));
  const QPointF front_left = fit.meters(fit.frame.bottomLeft()) / unit,
                back_right = fit.meters(fit.frame.topRight()) / unit;
  p.setPen(theme().quiet);
  p.setFont(text_font(11));
  const int most = std::max(2, static_cast<int>(fit.frame.width() / 56));
  const double step =
      report::round_step(std::max(back_right.x() - front_left.x(), back_right.y() - front_left.y()), most);
  const auto first = [&](double from) { return std::ceil(from / step - 1e-9) * step; };
  for (double at = first(front_left.x()); at <= back_right.x() + 1e-9; at += step)
    p.drawText(QRectF(QPointF(fit.pixel(at * unit, 0).x() - 30, fit.frame.bottom() + 12), QSizeF(60, 14)),
               Qt::AlignCenter, text_of(short_number(at, 1)));
  for (double at = first(front_left.y()); at <= back_right.y() + 1e-9; at += step)
    p.drawText(QRectF(QPointF(fit.frame.left() - map_left_room, fit.pixel(0, at * unit).y() - 7),
                      QSizeF(map_left_room - 14, 14)),
               Qt::AlignRight | Qt::AlignVCenter, text_of(short_number(at, 1)));
  const QString place =
      QCoreApplication::translate("map", "%1, from the front left").arg(text_of(symbol(surface_unit(units))));
  const QString with_door = QCoreApplication::translate("map", "door side · ") + place;
  const bool fits = fit.frame.left() + p.fontMetrics().horizontalAdvance(with_door) <= p.viewport().right();
  p.drawText(QRectF(fit.frame.left(), fit.frame.bottom() + 30, fit.frame.width() + 160, 14), Qt::AlignLeft,
             fits ? with_door : place);
}

}  // namespace

QBrush hatch(bool dim) {
  const int side = dim ? hatch_pitch_px : dot_pitch_px;
  QImage tile(side * 2, side * 2, QImage::Format_ARGB32_Premultiplied);
  tile.fill(Qt::transparent);
  tile.setDevicePixelRatio(2);
  QPainter p(&tile);
  p.setRenderHint(QPainter::Antialiasing);
  if (dim) {
    p.setPen(QPen(dim_color, 0.9));
    for (const int shift : {-side, 0, side}) p.drawLine(QPointF(shift, side), QPointF(side + shift, 0));
  } else {
    p.setPen(Qt::NoPen);
    p.setBrush(bright_color);
    p.drawEllipse(QPointF(side / 2.0, side / 2.0), 1.0, 1.0);
  }
  p.end();
  return QBrush(tile);
}

void hatch_box(QPainter& p, const QRectF& box, bool dim) {
  if (dim) {
    p.setPen(QPen(dim_color, 0.9));
    // The lines x + y = n · pitch, from where they come into the box to where they leave it.
    for (double sum = std::ceil((box.left() + box.top()) / hatch_pitch_px) * hatch_pitch_px;
         sum < box.right() + box.bottom(); sum += hatch_pitch_px) {
      const double x0 = std::max(box.left(), sum - box.bottom()), x1 = std::min(box.right(), sum - box.top());
      p.drawLine(QPointF(x0, sum - x0), QPointF(x1, sum - x1));
    }
    return;
  }
  p.setPen(Qt::NoPen);
  p.setBrush(bright_color);
  const auto first = [](double from) { return std::ceil(from / dot_pitch_px) * dot_pitch_px; };
  for (double y = first(box.top()); y < box.bottom(); y += dot_pitch_px)
    for (double x = first(box.left()); x < box.right(); x += dot_pitch_px) p.drawEllipse(QPointF(x, y), 1.0, 1.0);
  p.setBrush(Qt::NoBrush);
}

void paint_surroundings(QPainter& p, const MapFit& fit, const record::Bench& bench, UnitSystem units) {
  p.save();
  const QRectF f = fit.floor;
  p.setClipRect(fit.frame.adjusted(-9, -9, 9, 9));
  paint_wall(p, bench.wall_back, f.topLeft(), f.topRight(), {0, -1});
  paint_wall(p, bench.wall_front, f.bottomLeft(), f.bottomRight(), {0, 1});
  paint_wall(p, bench.wall_left, f.topLeft(), f.bottomLeft(), {-1, 0});
  paint_wall(p, bench.wall_right, f.topRight(), f.bottomRight(), {1, 0});
  paint_door(p, f, bench.wall_front);
  p.setClipping(false);
  paint_rulers(p, fit, units);
  p.restore();
}

void paint_key(QPainter& p, const MapFit& fit, const ValueScale& scale, const ValueText& text, bool with_band) {
  p.save();
  const double unit_room = 84, band_room = with_band ? 180 : 0;
  double width = std::clamp(fit.frame.width() + map_right_room - unit_room, 80.0, 280.0);
  // The scale makes room for what hatch and dots mean, as far as it stays readable.
  if (with_band)
    width =
        std::max(std::min(width, 150.0), std::min(width, fit.frame.width() + map_right_room - unit_room - band_room));
  const QRectF bar(fit.frame.left(), fit.frame.bottom() + 54, width, 10);
  const double span = scale.range.high - scale.range.low;
  for (int i = 0; i < static_cast<int>(width); ++i)
    p.fillRect(QRectF(bar.left() + i, bar.top(), 1.2, bar.height()),
               qcolor(scale.color(scale.range.low + (i + 0.5) / width * span)));
  const double step = report::round_step(span, 4);
  p.setFont(text_font(11));
  p.setPen(theme().quiet);
  for (double at = std::ceil(scale.range.low / step - 1e-9) * step; at <= scale.range.high + 1e-9 * step; at += step) {
    const double x = bar.left() + scale.range.share(at) * width;
    p.drawLine(QPointF(x, bar.bottom()), QPointF(x, bar.bottom() + 3));
    QString words = text_of(short_number(std::abs(at) < step / 1e6 ? 0 : at, 1)).replace('-', QChar(0x2212));
    if (text.with_sign && at > step / 1e6) words.prepend('+');
    p.drawText(QRectF(x - 30, bar.bottom() + 4, 60, 14), Qt::AlignCenter, words);
  }
  double x = bar.right() + 12;
  const auto word = [&](const QString& words) {
    p.setPen(theme().quiet);
    p.drawText(QPointF(x, bar.bottom()), words);
    x += QFontMetricsF(p.font()).horizontalAdvance(words) + 14;
  };
  word(text.unit);
  if (!with_band || x + band_room > fit.frame.right() + map_left_room + map_right_room) return p.restore();
  const auto swatch = [&](bool dim) {
    const QRectF square(x, bar.top() - 2, 16, 14);
    p.fillRect(square, qcolor(report::light_color(dim ? 0.35 : 0.85)));
    hatch_box(p, square, dim);
    x += 22;
  };
  swatch(true);
  word(QCoreApplication::translate("map", "too dim"));
  swatch(false);
  word(QCoreApplication::translate("map", "too bright"));
  p.restore();
}

}  // namespace sunbreak::desktop
