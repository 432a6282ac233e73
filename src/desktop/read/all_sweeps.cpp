#include "desktop/read/all_sweeps.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QTimer>
#include <algorithm>
#include <cstring>

#include "core/figures/figure_table.h"
#include "desktop/paint/map_painter.h"
#include "desktop/paint/painter_canvas.h"
#include "desktop/read/shown_values.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/field_parsers.h"
#include "desktop/widgets/text.h"
#include "drawing/surroundings.h"

namespace sunbreak::desktop {
namespace {

constexpr double head_px = 22, sweep_side_px = 52, foot_px = 64, words_px = 18, sweep_gap_px = 8;
constexpr qint64 frame_ms = 20;  ///< for maps, in one frame

/// Whether maps of both would be the same picture.
bool alike(const ShownValues& a, const ShownValues& b) {
  return a.values.size() == b.values.size() &&
         std::memcmp(a.values.data(), b.values.data(), a.values.size() * sizeof(double)) == 0 &&
         a.scale.range == b.scale.range && a.scale.diverging == b.scale.diverging && a.band == b.band;
}

}  // namespace

AllSweeps::AllSweeps(Desk& desk, const MapSettings& settings, QWidget* parent)
    : QWidget(parent), desk_(desk), settings_(settings) {
  setObjectName("allSweeps");
  setAttribute(Qt::WA_StyledBackground);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("All sweeps, heights down and dimmer settings across"));
}

QRectF AllSweeps::cell(const QRectF& room, int rung, int stop) const {
  const double width = (room.width() - sweep_side_px) /
                       static_cast<double>(std::max<std::size_t>(1, desk_.test()->planned_stops().size())),
               height = (room.height() - head_px - foot_px) /
                        static_cast<double>(std::max<std::size_t>(1, desk_.test()->planned_rungs().size()));
  return QRectF(room.left() + sweep_side_px + stop * width, room.top() + head_px + rung * height, width, height)
      .adjusted(sweep_gap_px / 2, sweep_gap_px / 2, -sweep_gap_px / 2, -sweep_gap_px / 2);
}

void AllSweeps::paint_page(QPainter& p, const QRectF& room, bool in_vectors) const {
  paint_all(p, room, in_vectors, false);
}

void AllSweeps::paint_all(QPainter& p, const QRectF& room, bool in_vectors, bool on_screen) const {
  if (!desk_.test() || !desk_.view()) return;
  const Theme& t = theme();
  p.setRenderHint(QPainter::Antialiasing);
  const auto rungs = desk_.test()->planned_rungs();
  const auto stops = desk_.test()->planned_stops();
  std::optional<ShownValues> for_key;
  bool whole_page = true;
  const drawing::ScaleRange range = shared_range(desk_, settings_);  // a page to compare by has one scale
  for (int s = 0; s < std::ssize(stops); ++s) {
    p.setPen(t.quiet);
    p.setFont(text_font(12));
    const QRectF column = cell(room, 0, s);
    p.drawText(QRectF(column.left(), room.top(), column.width(), head_px), Qt::AlignCenter,
               show_number(stops[s].percent) + " %");
  }
  for (int r = 0; r < std::ssize(rungs); ++r) {
    p.setPen(t.quiet);
    p.setFont(text_font(12));
    const QRectF row = cell(room, r, 0);
    p.drawText(QRectF(room.left(), row.top(), sweep_side_px - 6, row.height()), Qt::AlignRight | Qt::AlignVCenter,
               text_of(length_text(rungs[r].height_m, desk_.units())));
    for (int s = 0; s < std::ssize(stops); ++s) {
      const QRectF whole = cell(room, r, s);
      const record::Sweep* sweep = desk_.test()->sweep(rungs[r].id, stops[s].id);
      const evaluation::SweepView* view = sweep ? desk_.view_of(sweep->id) : nullptr;
      const bool words = whole.height() > 3 * words_px;
      const MapFit fit = fit_map(whole.adjusted(2, 2, -2, words ? -words_px - 2 : -2),
                                 view ? view->layout.footprint : desk_.view()->layout.footprint, false);
      p.setFont(text_font(11));
      if (!view || view->read() == 0) {
        p.setPen(QPen(t.rule, 1, Qt::DashLine));
        p.drawRect(fit.frame);
        p.setPen(t.quiet);
        p.drawText(fit.frame, Qt::AlignCenter | Qt::TextWordWrap,
                   sweep && desk_.test()->apart(sweep->id) ? tr("set apart") : tr("not walked"));
      } else {
        const ShownValues shown = shown_values(desk_, *view, settings_, range);
        if (!for_key) for_key = shown;
        if (!on_screen)
          paint_map_of(p, fit, *view, shown, in_vectors);
        else
          whole_page = paint_from_store(p, fit, sweep->id, shown) && whole_page;
        p.setPen(QPen(t.rule, 1));
        p.setBrush(Qt::NoBrush);
        p.drawRect(fit.frame);  // light like the ground, or a difference of nothing, keeps an edge
        if (words) {
          const evaluation::SweepDigest& digest = *desk_.digest_of(sweep->id);
          p.setPen(t.ink);
          p.drawText(QRectF(whole.left(), whole.bottom() - words_px, whole.width(), words_px), Qt::AlignCenter,
                     tr("mean %1 · %2").arg(text_of(ppfd_text(digest.mean_ppfd)), evenness_words(digest)));
        }
      }
      if (desk_.rung() && desk_.stop() && desk_.rung()->id == rungs[r].id && desk_.stop()->id == stops[s].id) {
        p.setPen(QPen(t.ember, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(fit.frame.adjusted(-3, -3, 3, 3));
      }
    }
  }
  // What there was no time for comes with the next frame.
  if (!whole_page) QTimer::singleShot(0, const_cast<AllSweeps*>(this), qOverload<>(&QWidget::update));
  if (!for_key) return;
  MapFit foot;
  foot.frame = QRectF(room.left() + sweep_side_px, room.bottom() - foot_px - 36, room.width() - sweep_side_px - 16, 0);
  PainterCanvas canvas(p, in_vectors);
  drawing::draw_key(canvas, foot.plain(), for_key->scale, for_key->text, for_key->band.has_value());
}

/// The figure of evenness that leads in this test, of one sweep.
QString AllSweeps::evenness_words(const evaluation::SweepDigest& digest) const {
  const Figure& lead = figure(desk_.test()->test.evenness_lead);
  const evaluation::SweepView* view = desk_.view_of(digest.sweep_id);
  const std::optional<SweepFigures> spread = spread_figures(view->layout, view->ppfd);
  const double value = spread ? lead.value(FigureSource(view->layout, view->ppfd, *spread)) : unread;
  return text_of(std::string(lead.label) + " " + shown_with_unit(lead, value, desk_.units()));
}

void AllSweeps::paint_map_of(QPainter& p, const MapFit& fit, const evaluation::SweepView& view,
                             const ShownValues& shown, bool in_vectors) const {
  MapScene scene;
  scene.view = &view;
  scene.bench = &desk_.test()->bench;
  scene.values = &shown.values;
  scene.scale = shown.scale;
  scene.text = shown.text;
  scene.band = shown.band;
  scene.numbers = scene.rulers = false;
  paint_map(p, fit, scene, in_vectors);
}

/// Puts a sweep's map down as it was painted before, or paints it where the frame has time left for that; false where
/// it has not.
bool AllSweeps::paint_from_store(QPainter& p, const MapFit& fit, record::Id sweep_id, const ShownValues& shown) const {
  const auto& view = desk_.worked_out().evaluation()->views().at(sweep_id);
  PaintedMap& kept = store_[sweep_id];
  const bool holds = kept.view == view && alike(kept.shown, shown) && kept.size == fit.frame.size() &&
                     kept.look == theme().look && kept.pixels.devicePixelRatio() == devicePixelRatioF();
  if (!holds) {
    if (painting_.elapsed() > frame_ms) return false;
    kept = {view, shown, fit.frame.size(), theme().look, QPixmap((fit.frame.size() * devicePixelRatioF()).toSize())};
    kept.pixels.setDevicePixelRatio(devicePixelRatioF());
    kept.pixels.fill(Qt::transparent);
    QPainter own(&kept.pixels);
    own.setRenderHint(QPainter::Antialiasing);
    MapFit at_origin = fit;
    at_origin.floor.translate(-fit.frame.topLeft());
    at_origin.frame.moveTopLeft({0, 0});
    paint_map_of(own, at_origin, *view, shown, false);
  }
  p.drawPixmap(fit.frame.topLeft(), kept.pixels);
  return true;
}

void AllSweeps::paintEvent(QPaintEvent*) {
  painting_.start();
  QPainter p(this);
  paint_all(p, rect(), false, true);
}

void AllSweeps::mousePressEvent(QMouseEvent* event) {
  if (!desk_.test()) return;
  const auto rungs = desk_.test()->planned_rungs();
  const auto stops = desk_.test()->planned_stops();
  for (int r = 0; r < std::ssize(rungs); ++r)
    for (int s = 0; s < std::ssize(stops); ++s)
      if (cell(rect(), r, s).contains(event->position())) return desk_.choose(rungs[r].id, stops[s].id);
}

void AllSweeps::mouseDoubleClickEvent(QMouseEvent*) { emit opened(); }

void AllSweeps::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return emit opened();
  if (!desk_.step_by_arrow(event->key())) QWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
