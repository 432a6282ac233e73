#include "desktop/paint/charts.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "desktop/paint/map_fit.h"
#include "desktop/paint/painter_canvas.h"
#include "desktop/widgets/text.h"
#include "drawing/area_plot.h"
#include "drawing/ring_bars.h"

namespace sunbreak::desktop {
RingsChart::RingsChart(QWidget* parent) : QWidget(parent) {
  setAccessibleName(tr("Mean PPFD of each ring, wall to center"));
}

void RingsChart::show_rings(std::vector<Ring> rings, const drawing::ScaleRange& range, const std::optional<Band>& band,
                            UnitSystem units, double photoperiod_h) {
  rings_ = std::move(rings), range_ = range, band_ = band, units_ = units;
  photoperiod_h_ = photoperiod_h;
  setFixedHeight(static_cast<int>(drawing::ring_bars_height(rings_.size())));
  QStringList words;
  for (const Ring& ring : rings_) words << text_of(ppfd_text(ring.mean_ppfd));
  setAccessibleDescription(words.join(", "));
  update();
}

void RingsChart::paintEvent(QPaintEvent*) {
  QPainter p(this);
  PainterCanvas canvas(p);
  drawing::draw_ring_bars(canvas, box_of(rect()), rings_, range_, band_, units_, photoperiod_h_);
}

AreaCurveChart::AreaCurveChart(QWidget* parent) : QWidget(parent) {
  setFixedHeight(132);
  setMouseTracking(true);
  setAccessibleName(tr("Area at or above each PPFD"));
}

void AreaCurveChart::show_curve(std::optional<AreaCurve> curve, double area_m2, double highest_ppfd,
                                const std::optional<Band>& band, UnitSystem units) {
  curve_ = std::move(curve), area_m2_ = area_m2, range_ = drawing::round_range(0, highest_ppfd), band_ = band,
  units_ = units;
  update();
}

void AreaCurveChart::paintEvent(QPaintEvent*) {
  if (!curve_) return;
  QPainter p(this);
  PainterCanvas canvas(p);
  drawing::draw_area_plot(canvas, box_of(rect()),
                          {&*curve_, area_m2_, range_,
                           pointed_ ? pointed_
                           : band_  ? std::optional(band_->low)
                                    : std::nullopt,
                           units_});
}

void AreaCurveChart::mouseMoveEvent(QMouseEvent* event) {
  const drawing::Box box = drawing::area_plot_box(box_of(rect()));
  const double share = (event->position().x() - box.left) / box.width;
  pointed_ = share >= 0 && share <= 1 ? std::optional(share * range_.high) : std::nullopt;
  update();
}

void AreaCurveChart::leaveEvent(QEvent*) {
  pointed_.reset();
  update();
}

}  // namespace sunbreak::desktop
