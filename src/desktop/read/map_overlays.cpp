#include "desktop/read/map_overlays.h"

#include <algorithm>

#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {
namespace {

/// A label that stays readable on any color, at the left end of what it names.
void tag(QPainter& p, const MapFit& fit, const QPointF& at, const QString& words, const QColor& ink) {
  p.setFont(text_font(11, true));
  const QFontMetricsF metrics(p.font());
  QRectF box(at, QSizeF(metrics.horizontalAdvance(words) + 8, metrics.height() + 2));
  box.moveLeft(std::clamp(box.left(), fit.frame.left(), std::max(fit.frame.left(), fit.frame.right() - box.width())));
  box.moveTop(std::clamp(box.top(), fit.frame.top(), std::max(fit.frame.top(), fit.frame.bottom() - box.height())));
  p.fillRect(box, theme().panel);
  p.setPen(ink);
  p.drawText(box, Qt::AlignCenter, words);
}

/// A line in two tones, so that it shows on dark and on light alike.
void two_toned(QPainter& p, const QColor& color, Qt::PenStyle style, double width, const auto& draw) {
  QColor halo = theme().panel;
  halo.setAlpha(190);
  p.setPen(QPen(halo, width + 2));
  draw();
  p.setPen(QPen(color, width, style));
  draw();
}

void paint_fixture(QPainter& p, const MapFit& fit, const Desk& desk) {
  const FixtureOutline o = evaluation::outline_of(desk.test()->fixture, desk.test()->bench);
  const Footprint fp = desk.view()->layout.footprint;
  for (int unit = 0; unit < o.units; ++unit) {
    const double middle = fp.width_m / 2 + (unit - (o.units - 1) / 2.0) * o.unit_spacing_m;
    const QRectF lamp = fit.box({middle - o.width_m / 2, (fp.depth_m - o.depth_m) / 2, o.width_m, o.depth_m});
    two_toned(p, theme().ink, Qt::DashDotLine, 1.4, [&] { p.drawRect(lamp); });
    if (unit == 0) tag(p, fit, lamp.bottomLeft() - QPointF(0, 16), QObject::tr("fixture"), theme().ink);
  }
}

void paint_footprints(QPainter& p, const MapFit& fit, const Desk& desk) {
  if (!desk.figures()) return;
  const Rectangle& area = desk.view()->layout.measured;
  for (const NominalFootprint& n : desk.figures()->nominal) {
    const QRectF box = fit.box({area.left_m + (area.width_m - n.size.width_m) / 2,
                                area.front_m + (area.depth_m - n.size.depth_m) / 2, n.size.width_m, n.size.depth_m});
    two_toned(p, theme().ink, Qt::DashLine, 1.2, [&] { p.drawRect(box); });
    tag(p, fit, box.topLeft() + QPointF(4, 2),
        (n.passes ? QStringLiteral("● ") : QStringLiteral("○ ")) +
            text_of(size_text(n.size.width_m, n.size.depth_m, desk.units())),
        theme().ink);
  }
}

void paint_rings(QPainter& p, const MapFit& fit, const Desk& desk) {
  if (!desk.figures()) return;
  const Layout& layout = desk.view()->layout;
  const auto& rings = desk.figures()->rings;
  for (std::size_t i = 0; i + 1 < rings.size(); ++i) {
    const auto border = [&](const std::vector<double>& places) {
      return std::pair{(places[i] + places[i + 1]) / 2,
                       (places[places.size() - 1 - i] + places[places.size() - 2 - i]) / 2};
    };
    const auto [left, right] = border(layout.xs_m);
    const auto [front, back] = border(layout.ys_m);
    const QRectF box = fit.box({left, front, right - left, back - front});
    two_toned(p, theme().lake, Qt::DotLine, 1.4, [&] { p.drawRect(box); });
  }
  for (std::size_t i = 0; i < rings.size(); ++i) {
    const QPointF at = fit.pixel(layout.xs_m[i], layout.ys_m[layout.ys_m.size() - 1 - i]);
    if (rings[i].read > 0) tag(p, fit, at - QPointF(14, 8), text_of(ppfd_text(rings[i].mean_ppfd)), theme().lake);
  }
}

void paint_coverage(QPainter& p, const MapFit& fit, const Desk& desk) {
  if (!desk.figures() || !desk.figures()->coverage) return;
  const Coverage& c = *desk.figures()->coverage;
  const Rectangle& area = desk.view()->layout.measured;
  if (c.largest_centered_circle_m > 0) {
    const double side = c.largest_centered_circle_m;
    const QRectF box =
        fit.box({area.left_m + (area.width_m - side) / 2, area.front_m + (area.depth_m - side) / 2, side, side});
    two_toned(p, theme().ember, Qt::DashLine, 1.4, [&] { p.drawEllipse(box); });
    tag(p, fit, QPointF(box.center().x() - 40, box.bottom() - 18),
        QObject::tr("circle %1").arg(text_of(length_text(side, desk.units()))), theme().ember);
  }
  const auto rectangle = [&](const Rectangle& r, Qt::PenStyle style, double width, const QString& words, bool below) {
    if (r.area_m2() <= 0) return;
    const QRectF box = fit.box(r);
    two_toned(p, theme().ember, style, width, [&] { p.drawRect(box); });
    tag(p, fit, below ? box.bottomLeft() + QPointF(4, -17) : box.topLeft() + QPointF(4, 3),
        words.arg(text_of(size_text(r.width_m, r.depth_m, desk.units()))), theme().ember);
  };
  rectangle(c.largest_rectangle, Qt::SolidLine, 2, QObject::tr("in band %1"), false);
  if (!(c.largest_centered_rectangle == c.largest_rectangle))
    rectangle(c.largest_centered_rectangle, Qt::DashLine, 1.4, QObject::tr("centered %1"), true);
}

}  // namespace

void paint_cut(QPainter& p, const MapFit& fit, const Place& from, const Place& to) {
  const QPointF a = fit.pixel(from.x_m, from.y_m), b = fit.pixel(to.x_m, to.y_m);
  two_toned(p, theme().ink, Qt::SolidLine, 2, [&] { p.drawLine(a, b); });
  tag(p, fit, a + QPointF(2, 2), QStringLiteral("A"), theme().ink);
  tag(p, fit, b + QPointF(-16, 2), QStringLiteral("B"), theme().ink);
}

void paint_overlays(QPainter& p, const MapFit& fit, const Desk& desk, const MapSettings& settings) {
  p.save();
  p.setRenderHint(QPainter::Antialiasing);
  p.setClipRect(fit.frame);
  p.setBrush(Qt::NoBrush);
  if (settings.rings) paint_rings(p, fit, desk);
  if (settings.footprints) paint_footprints(p, fit, desk);
  if (settings.fixture) paint_fixture(p, fit, desk);
  if (settings.coverage && settings.quantity != Quantity::Difference) paint_coverage(p, fit, desk);
  if (settings.cut) paint_cut(p, fit, settings.cut->first, settings.cut->second);
  p.restore();
}

}  // namespace sunbreak::desktop
