#include "desktop/read/light_side.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "desktop/desk/desk.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"
#include "evaluation/light_words.h"

namespace sunbreak::desktop {
namespace {

/// A lean of a degree is not seen: it is drawn as several.
constexpr double lean_times = 4;

/// The rose of a mix in the plane of the drawing: as far from the middle as the intensity at that angle.
QPainterPath rose(const LobeFlux& mix, double reach_px) {
  double greatest = 0;
  std::vector<double> light;
  for (int degree = -90; degree <= 90; degree += 2) {
    const double theta = std::abs(degree) * std::numbers::pi / 180;
    light.push_back(intensity(mix, theta, 0));
    greatest = std::max(greatest, light.back());
  }
  QPainterPath path(QPointF(0, 0));
  for (std::size_t i = 0; i < light.size(); ++i) {
    const double theta = (-90.0 + 2.0 * static_cast<double>(i)) * std::numbers::pi / 180;
    const double r = greatest > 0 ? reach_px * light[i] / greatest : 0;
    path.lineTo(r * std::sin(theta), r * std::cos(theta));
  }
  path.closeSubpath();
  return path;
}

}  // namespace

LightSide::LightSide(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumSize(200, 210);
  setObjectName("lightSide");
  setAccessibleName(tr("The fixture from the side as it was found to hang, with its beam"));
}

void LightSide::paintEvent(QPaintEvent*) {
  const evaluation::TestLight* light = desk_.worked_out().light();
  if (!light || !light->found().fits || !desk_.rung()) return;
  const WholeLight& w = light->found();
  const Theme& t = theme();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Room& room = light->question().fit.room;
  const FixtureOutline& o = light->question().fit.outline;
  const double height_m = desk_.between_m().value_or(desk_.rung()->height_m);
  const QRectF inside = QRectF(rect()).adjusted(10, 8, -10, -26);
  const double scale = std::min(inside.width() / room.width_m, inside.height() / room.height_m);
  const QRectF box(inside.center().x() - room.width_m * scale / 2, inside.bottom() - room.height_m * scale,
                   room.width_m * scale, room.height_m * scale);
  p.fillRect(box, t.panel);
  const auto wall = [&](std::size_t side, const QPointF& a, const QPointF& b) {
    const bool open = std::isnan(w.reflectance[side].value);
    p.setPen(QPen(t.quiet, open ? 1 : 3, open ? Qt::DotLine : Qt::SolidLine));
    p.drawLine(a, b);
  };
  wall(0, box.topLeft(), box.bottomLeft());
  wall(1, box.topRight(), box.bottomRight());
  wall(5, box.topLeft(), box.topRight());
  p.setPen(QPen(t.ink, 3));
  p.drawLine(box.bottomLeft(), box.bottomRight());
  const double middle = box.center().x(), lamp_y = box.bottom() - height_m * scale;
  p.setPen(QPen(t.quiet, 1, Qt::DashLine));
  p.drawLine(QPointF(middle, box.top() + 4), QPointF(middle, box.bottom()));
  LobeFlux mix = w.mix;
  p.setClipRect(box.adjusted(1, 1, -1, -1));
  for (int unit = 0; unit < units_of(o); ++unit) {
    const std::size_t u = std::min(static_cast<std::size_t>(unit), w.roll_deg.size() - 1);
    p.save();
    p.translate(middle + (turned_unit_place(o, unit).x_m + w.offset_x_m.value) * scale, lamp_y);
    p.rotate(described_roll_deg(o, unit) + lean_times * w.roll_deg[u].value);
    QColor glow = t.light;
    glow.setAlpha(t.look == Look::Paper ? 90 : 50);
    p.setBrush(glow);
    p.setPen(QPen(t.ember, 1.5));
    p.drawPath(rose(mix, height_m * scale * 0.9));
    p.fillRect(QRectF(-o.width_m * scale / 2, -6, o.width_m * scale, 6), t.ink);
    p.restore();
  }
  p.setClipping(false);
  p.setPen(t.quiet);
  p.setFont(text_font(11));
  p.drawText(QRectF(0, height() - 22, width(), 18), Qt::AlignCenter,
             tr("leans drawn %1 times as large").arg(lean_times));
}

}  // namespace sunbreak::desktop
