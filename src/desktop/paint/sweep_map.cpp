#include "desktop/paint/sweep_map.h"

#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <cmath>

#include "core/bench/station_box.h"
#include "desktop/desk/desk.h"
#include "desktop/paint/map_painter.h"
#include "desktop/paint/station_words.h"
#include "desktop/theme/theme.h"
#include "desktop/widgets/text.h"

namespace sunbreak::desktop {

SweepMap::SweepMap(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumSize(280, 280);
  setMouseTracking(true);
  setAccessibleName(tr("Map of the sweep, far wall at the top"));
  connect(&desk, &Desk::changed, this, [this] {
    describe();
    update();
  });
}

void SweepMap::describe() {
  const evaluation::SweepView* view = desk_.view();
  if (!view) return;
  QString words = tr("%1 of %2 stations read").arg(view->read()).arg(view->states.size());
  if (current_ >= 0 && current_ < static_cast<int>(view->states.size()))
    words += tr("; at hand: %1, %2").arg(station_words(view->layout, current_), value_words(current_));
  setAccessibleDescription(words);
}

QString SweepMap::value_words(int station) const {
  const double ppfd = desk_.view()->ppfd[station];
  if (!std::isnan(ppfd)) return text_of(ppfd_text(ppfd)) + tr(" µmol/m²/s");
  return desk_.view()->states[station].kind == evaluation::StationState::Missing ? tr("missing") : tr("not read yet");
}

void SweepMap::set_current(int station) {
  current_ = station;
  describe();
  update();
}

void SweepMap::set_band_shown(bool shown) { band_shown_ = shown; }
void SweepMap::set_numbers(bool numbers) {
  numbers_ = numbers;
  update();
}

void SweepMap::paintEvent(QPaintEvent*) {
  if (!desk_.test() || !desk_.view()) return;
  QPainter p(this);
  MapScene scene;
  scene.view = desk_.view();
  scene.bench = &desk_.test()->bench;
  scene.scale.range = desk_.scale();
  scene.band = band_shown_ ? desk_.band() : std::nullopt;
  scene.units = desk_.units();
  scene.current = current_;
  scene.numbers = numbers_;
  paint_map(p, fit_map(rect(), desk_.view()->layout.footprint, true), scene);
}

std::optional<int> SweepMap::station_at(const QPointF& place) const {
  if (!desk_.view()) return {};
  const MapFit fit = fit_map(rect(), desk_.view()->layout.footprint, true);
  const QPointF at = fit.meters(place);
  return station_near(desk_.view()->layout, at.x(), at.y());
}

void SweepMap::mousePressEvent(QMouseEvent* event) {
  if (const auto station = station_at(event->position())) emit picked(*station);
}

void SweepMap::mouseMoveEvent(QMouseEvent* event) {
  const auto station = station_at(event->position());
  if (!station) return QToolTip::hideText();
  const Station& s = desk_.view()->layout.stations[*station];
  QToolTip::showText(event->globalPosition().toPoint(),
                     tr("x %1, y %2: %3")
                         .arg(text_of(length_text(s.x_m, desk_.units())), text_of(length_text(s.y_m, desk_.units())),
                              value_words(*station)),
                     this);
}

}  // namespace sunbreak::desktop
