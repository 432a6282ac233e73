#include "desktop/paint/map_painter.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "core/bench/station_box.h"
#include "desktop/shell/desk.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

constexpr double left_room = 48, right_room = 16, top_room = 16;
constexpr double loose_half_m = 0.06;

/// A tile that repeats without seams: thin diagonals for too dim, dots for too bright.
QBrush hatch(bool dim) {
  const int side = dim ? 10 : 7;
  QImage tile(side * 2, side * 2, QImage::Format_ARGB32_Premultiplied);
  tile.fill(Qt::transparent);
  tile.setDevicePixelRatio(2);
  QPainter p(&tile);
  p.setRenderHint(QPainter::Antialiasing);
  if (dim) {
    p.setPen(QPen(QColor(255, 253, 246, 120), 0.9));
    for (const int shift : {-side, 0, side}) p.drawLine(QPointF(shift, side), QPointF(side + shift, 0));
  } else {
    p.setPen(Qt::NoPen);
    p.setBrush(QColor(20, 27, 31, 130));
    p.drawEllipse(QPointF(side / 2.0, side / 2.0), 1.0, 1.0);
  }
  p.end();
  return QBrush(tile);
}

class MapPainter {
 public:
  MapPainter(QPainter& p, const MapFit& fit, const MapScene& scene)
      : p_(p), fit_(fit), s_(scene), layout_(scene.view->layout) {
    boxes_ = station_boxes(layout_);
    for (std::size_t i = boxes_.size(); i < layout_.stations.size(); ++i)
      boxes_.push_back({layout_.stations[i].x_m - loose_half_m, layout_.stations[i].y_m - loose_half_m,
                        2 * loose_half_m, 2 * loose_half_m});
  }

  void paint() {
    p_.fillRect(fit_.floor, theme().look == Look::Paper ? theme().panel : theme().ground);
    stations();
    out_of_band();
    if (s_.numbers) numbers();
    if (s_.rulers) {
      surroundings();
      light_key();
    }
    current();
  }

  void surroundings() {
    walls();
    rulers();
  }

 private:
  double ppfd(std::size_t i) const { return s_.view->ppfd[i]; }
  QRectF box(std::size_t i) const { return fit_.box(boxes_[i]); }

  void stations() {
    const Theme& t = theme();
    p_.setRenderHint(QPainter::Antialiasing, false);
    for (std::size_t i = 0; i < boxes_.size(); ++i)
      if (!std::isnan(ppfd(i)))
        p_.fillRect(box(i).adjusted(0, 0, 0.5, 0.5), qcolor(report::light_color(s_.range.share(ppfd(i)))));
    p_.setRenderHint(QPainter::Antialiasing, true);
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (!std::isnan(ppfd(i))) continue;
      const QRectF b = box(i);
      const double r = std::clamp(std::min(b.width(), b.height()) * 0.12, 1.0, 4.0);
      p_.setPen(QPen(t.quiet, 1.2));
      if (s_.view->states[i].kind == book::StationState::Missing) {
        p_.drawLine(b.center() + QPointF(-r, -r) * 1.6, b.center() + QPointF(r, r) * 1.6);
        p_.drawLine(b.center() + QPointF(-r, r) * 1.6, b.center() + QPointF(r, -r) * 1.6);
      } else {
        p_.setBrush(Qt::NoBrush);
        p_.drawEllipse(b.center(), r, r);
      }
    }
  }

  void out_of_band() {
    if (!s_.band) return;
    QPainterPath dim, bright;
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (ppfd(i) < s_.band->low) dim.addRect(box(i));
      if (ppfd(i) > s_.band->high) bright.addRect(box(i));
    }
    p_.fillPath(dim, hatch(true));
    p_.fillPath(bright, hatch(false));
  }

  void numbers() {
    if (boxes_.empty()) return;
    const QRectF one = box(boxes_.size() / 2);
    const int pixels = static_cast<int>(std::min({16.0, one.width() / 3.0, one.height() / 1.7}));
    if (pixels < 8) return;
    p_.setFont(text_font(pixels));
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
      if (std::isnan(ppfd(i))) continue;
      p_.setPen(qcolor(report::ink_on(report::light_color(s_.range.share(ppfd(i))))));
      p_.drawText(box(i), Qt::AlignCenter, text_of(ppfd_text(ppfd(i))));
    }
  }

  void wall(const std::string& kind, const QPointF& from, const QPointF& to, const QPointF& out) {
    const Theme& t = theme();
    if (kind == "open") {
      p_.setPen(QPen(t.quiet, 1, Qt::DotLine));
      p_.drawLine(from + out, to + out);
      return;
    }
    p_.setPen(QPen(kind == "dark" ? t.ink : t.quiet, kind == "dark" ? 4 : 1.4));
    p_.drawLine(from + out * 3, to + out * 3);
    if (kind != "dark" && !kind.empty()) p_.drawLine(from + out * 6, to + out * 6);
  }

  void walls() {
    const QRectF f = fit_.floor;
    wall(s_.bench->wall_back, f.topLeft(), f.topRight(), {0, -1});
    wall(s_.bench->wall_front, f.bottomLeft(), f.bottomRight(), {0, 1});
    wall(s_.bench->wall_left, f.topLeft(), f.bottomLeft(), {-1, 0});
    wall(s_.bench->wall_right, f.topRight(), f.bottomRight(), {1, 0});
  }

  void rulers() {
    const double unit = meters_per(surface_unit(s_.units));
    const Footprint& fp = layout_.footprint;
    p_.setPen(theme().quiet);
    p_.setFont(text_font(11));
    const int most = std::max(2, static_cast<int>(fit_.floor.width() / 56));
    const double step = report::round_step(std::max(fp.width_m, fp.depth_m) / unit, most);
    for (double at = 0; at <= fp.width_m / unit + 1e-9; at += step)
      p_.drawText(QRectF(fit_.pixel(at * unit, 0) + QPointF(-30, 12), QSizeF(60, 14)), Qt::AlignCenter,
                  text_of(short_number(at, 1)));
    for (double at = 0; at <= fp.depth_m / unit + 1e-9; at += step)
      p_.drawText(QRectF(fit_.pixel(0, at * unit) + QPointF(-left_room, -7), QSizeF(left_room - 14, 14)),
                  Qt::AlignRight | Qt::AlignVCenter, text_of(short_number(at, 1)));
    const QString place = QCoreApplication::translate("map", "%1, from the front left")
                              .arg(QString::fromUtf8(symbol(surface_unit(s_.units)).data()));
    p_.drawText(QRectF(fit_.floor.left(), fit_.floor.bottom() + 30, fit_.floor.width() + 160, 14), Qt::AlignLeft,
                QCoreApplication::translate("map", "door side · ") + place);
  }

  void light_key() {
    const double unit_room = 84;
    const double width = std::clamp(fit_.floor.width() + right_room - unit_room, 80.0, 280.0);
    const QRectF bar(fit_.floor.left(), fit_.floor.bottom() + 54, width, 10);
    for (int i = 0; i < static_cast<int>(width); ++i)
      p_.fillRect(QRectF(bar.left() + i, bar.top(), 1.2, bar.height()), qcolor(report::light_color((i + 0.5) / width)));
    const double step = report::round_step(s_.range.high - s_.range.low, 4);
    p_.setFont(text_font(11));
    p_.setPen(theme().quiet);
    for (double at = s_.range.low; at <= s_.range.high + 1e-9; at += step) {
      const double x = bar.left() + s_.range.share(at) * width;
      p_.drawLine(QPointF(x, bar.bottom()), QPointF(x, bar.bottom() + 3));
      p_.drawText(QRectF(x - 30, bar.bottom() + 4, 60, 14), Qt::AlignCenter, text_of(short_number(at, 1)));
    }
    double x = bar.right() + 12;
    const auto word = [&](const QString& text) {
      p_.setPen(theme().quiet);
      p_.drawText(QPointF(x, bar.bottom()), text);
      x += QFontMetricsF(p_.font()).horizontalAdvance(text) + 14;
    };
    word(QCoreApplication::translate("map", "µmol/m²/s"));
    if (!s_.band) return;
    const auto swatch = [&](bool dim) {
      const QRectF square(x, bar.top() - 2, 16, 14);
      p_.fillRect(square, qcolor(report::light_color(dim ? 0.35 : 0.85)));
      p_.fillRect(square, hatch(dim));
      x += 22;
    };
    const double need = 180;
    if (x + need > fit_.floor.right() + left_room + right_room) return;
    swatch(true);
    word(QCoreApplication::translate("map", "too dim"));
    swatch(false);
    word(QCoreApplication::translate("map", "too bright"));
  }

  void current() {
    if (s_.current < 0 || s_.current >= static_cast<int>(boxes_.size())) return;
    p_.setBrush(Qt::NoBrush);
    p_.setPen(QPen(theme().panel, 6));
    p_.drawRect(box(s_.current));
    p_.setPen(QPen(theme().ember, 3));
    p_.drawRect(box(s_.current));
  }

  QPainter& p_;
  const MapFit& fit_;
  const MapScene& s_;
  const Layout& layout_;
  std::vector<Rectangle> boxes_;
};

}  // namespace

void paint_surroundings(QPainter& p, const MapFit& fit, const MapScene& scene) {
  p.save();
  MapPainter(p, fit, scene).surroundings();
  p.restore();
}

QColor qcolor(const report::Rgb& c) { return {c.red, c.green, c.blue}; }

MapFit fit_map(const QRectF& room, const Footprint& footprint, bool rulers, double foot_room) {
  const QRectF inner = rulers ? room.adjusted(left_room, top_room, -right_room, -foot_room) : room;
  const double scale = std::max(1.0, std::min(inner.width() / footprint.width_m, inner.height() / footprint.depth_m));
  const QSizeF size(footprint.width_m * scale, footprint.depth_m * scale);
  return {QRectF(QPointF(inner.center().x() - size.width() / 2,
                         inner.top() + (rulers ? 0 : (inner.height() - size.height()) / 2)),
                 size),
          scale, footprint.depth_m};
}

void paint_map(QPainter& p, const MapFit& fit, const MapScene& scene) {
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  MapPainter(p, fit, scene).paint();
  p.restore();
}

}  // namespace sunbreak::desktop
