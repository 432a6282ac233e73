#include "desktop/read/all_sweeps.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

#include "desktop/paint/map_frame.h"
#include "desktop/paint/map_painter.h"
#include "desktop/read/shown_values.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/takers.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {
namespace {

constexpr double head_px = 22, side_px = 52, foot_px = 64, words_px = 18, gap_px = 8;

}  // namespace

AllSweeps::AllSweeps(Desk& desk, const MapSettings& settings, QWidget* parent)
    : QWidget(parent), desk_(desk), settings_(settings) {
  setObjectName("allSweeps");
  setAttribute(Qt::WA_StyledBackground);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("All sweeps, heights down and dimmer settings across"));
}

QRectF AllSweeps::cell(const QRectF& room, int rung, int stop) const {
  const double width =
                   (room.width() - side_px) / static_cast<double>(std::max<std::size_t>(1, desk_.test()->stops.size())),
               height = (room.height() - head_px - foot_px) /
                        static_cast<double>(std::max<std::size_t>(1, desk_.test()->rungs.size()));
  return QRectF(room.left() + side_px + stop * width, room.top() + head_px + rung * height, width, height)
      .adjusted(gap_px / 2, gap_px / 2, -gap_px / 2, -gap_px / 2);
}

void AllSweeps::paint_page(QPainter& p, const QRectF& room, bool in_vectors) const {
  if (!desk_.test() || !desk_.view()) return;
  const Theme& t = theme();
  p.setRenderHint(QPainter::Antialiasing);
  const auto& rungs = desk_.test()->rungs;
  const auto& stops = desk_.test()->stops;
  std::optional<ShownValues> for_key;
  const report::ScaleRange range = shared_range(desk_, settings_);  // a page to compare by has one scale
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
    p.drawText(QRectF(room.left(), row.top(), side_px - 6, row.height()), Qt::AlignRight | Qt::AlignVCenter,
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
        p.drawText(fit.frame, Qt::AlignCenter | Qt::TextWordWrap, tr("not walked"));
      } else {
        const ShownValues shown = shown_values(desk_, *view, settings_, range);
        if (!for_key) for_key = shown;
        MapScene scene;
        scene.view = view;
        scene.bench = &desk_.test()->bench;
        scene.values = &shown.values;
        scene.scale = shown.scale;
        scene.text = shown.text;
        scene.band = shown.band;
        scene.numbers = scene.rulers = false;
        scene.plain_paths = in_vectors;
        paint_map(p, fit, scene);
        p.setPen(QPen(t.rule, 1));
        p.setBrush(Qt::NoBrush);
        p.drawRect(fit.frame);  // light like the ground, or a difference of nothing, keeps an edge
        if (words) {
          const SweepFigures* f = desk_.worked_out().evaluation()->figures(sweep->id);
          p.setPen(t.ink);
          p.drawText(QRectF(whole.left(), whole.bottom() - words_px, whole.width(), words_px), Qt::AlignCenter,
                     tr("mean %1 · lowest ÷ mean %2")
                         .arg(text_of(ppfd_text(f->mean_ppfd)))
                         .arg(f->evenness.lowest_over_mean, 0, 'f', 2));
        }
      }
      if (desk_.rung() && desk_.stop() && desk_.rung()->id == rungs[r].id && desk_.stop()->id == stops[s].id) {
        p.setPen(QPen(t.ember, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(fit.frame.adjusted(-3, -3, 3, 3));
      }
    }
  }
  if (!for_key) return;
  MapFit foot;
  foot.frame = QRectF(room.left() + side_px, room.bottom() - foot_px - 36, room.width() - side_px - 16, 0);
  paint_key(p, foot, for_key->scale, for_key->text, for_key->band.has_value());
}

void AllSweeps::paintEvent(QPaintEvent*) {
  QPainter p(this);
  paint_page(p, rect(), false);
}

void AllSweeps::mousePressEvent(QMouseEvent* event) {
  if (!desk_.test()) return;
  for (int r = 0; r < std::ssize(desk_.test()->rungs); ++r)
    for (int s = 0; s < std::ssize(desk_.test()->stops); ++s)
      if (cell(rect(), r, s).contains(event->position()))
        return desk_.choose(desk_.test()->rungs[r].id, desk_.test()->stops[s].id);
}

void AllSweeps::mouseDoubleClickEvent(QMouseEvent*) { emit opened(); }

void AllSweeps::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return emit opened();
  if (!desk_.step_by_arrow(event->key())) QWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
