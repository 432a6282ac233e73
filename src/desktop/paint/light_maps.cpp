#include "desktop/paint/light_maps.h"

#include <QElapsedTimer>
#include <QEvent>
#include <QPainter>
#include <QTimer>

#include "desktop/desk/desk.h"
#include "desktop/paint/map_fit.h"
#include "desktop/paint/map_painter.h"
#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {
constexpr int map_title_px = 20, map_words_px = 20, maps_apart_px = 16, maps_frame_ms = 12;
}

LightMaps::LightMaps(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumHeight(220);
  setObjectName("lightMaps");
}

void LightMaps::show_maps(std::vector<RowMap> maps) {
  maps_ = std::move(maps);
  painted_.assign(maps_.size(), {});
  QStringList words;
  for (const RowMap& map : maps_) words << map.title + ": " + map.foot;
  setAccessibleName(tr("Maps: %1").arg(words.join("; ")));
  update();
}

void LightMaps::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  painted_.assign(maps_.size(), {});
}

void LightMaps::changeEvent(QEvent* event) {
  if (event->type() == QEvent::StyleChange || event->type() == QEvent::PaletteChange) painted_.assign(maps_.size(), {});
  QWidget::changeEvent(event);
}

void LightMaps::paintEvent(QPaintEvent*) {
  if (maps_.empty()) return;
  QPainter p(this);
  QElapsedTimer frame;
  frame.start();
  const double wide =
      (width() - maps_apart_px * (static_cast<double>(maps_.size()) - 1)) / static_cast<double>(maps_.size());
  double left = 0;
  bool all = true;
  for (std::size_t i = 0; i < maps_.size(); ++i) {
    const QSizeF size(wide, height());
    if (painted_[i].isNull() && (i == 0 || frame.elapsed() < maps_frame_ms)) {
      painted_[i] = QPixmap((size * devicePixelRatioF()).toSize());
      painted_[i].setDevicePixelRatio(devicePixelRatioF());
      painted_[i].fill(Qt::transparent);
      QPainter on(&painted_[i]);
      on.setRenderHint(QPainter::Antialiasing);
      paint_one(on, maps_[i], QRectF(QPointF(0, 0), size));
    }
    all = all && !painted_[i].isNull();
    p.drawPixmap(QPointF(left, 0), painted_[i]);
    left += wide + maps_apart_px;
  }
  // What there was no time for comes with the next frame.
  if (!all) QTimer::singleShot(0, this, qOverload<>(&LightMaps::update));
}

void LightMaps::paint_one(QPainter& p, const RowMap& map, const QRectF& room) const {
  const Theme& t = theme();
  const QRectF middle = room.adjusted(4, map_title_px + 4, -4, -map_words_px - 4);
  evaluation::SweepView view;
  view.layout = map.layout;
  view.ppfd = map.values;
  for (const double value : map.values) {
    evaluation::StationState state;
    state.kind = std::isnan(value) ? evaluation::StationState::Untouched : evaluation::StationState::Read;
    view.states.push_back(state);
  }
  record::Bench floor = desk_.test() ? desk_.test()->bench : record::Bench{};
  floor.width_m = map.layout.footprint.width_m;
  floor.depth_m = map.layout.footprint.depth_m;
  const MapFit fit = fit_map(middle, map.layout.footprint, false, 0);
  MapScene scene;
  scene.view = &view;
  scene.bench = &floor;
  scene.values = &map.values;
  scene.scale = map.scale;
  scene.text = map.text;
  scene.band = map.band;
  scene.units = desk_.units();
  scene.rulers = scene.key = false;
  scene.room_right = room.right();
  paint_map(p, fit, scene);
  if (map.predicted) {
    p.setPen(QPen(t.ember, 2, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRect(fit.frame.adjusted(-3, -3, 3, 3));
  }
  p.setPen(t.ink);
  p.setFont(text_font(12, true));
  p.drawText(QRectF(room.left(), room.top(), room.width(), map_title_px), Qt::AlignCenter,
             QFontMetrics(p.font()).elidedText(map.title, Qt::ElideRight, static_cast<int>(room.width())));
  p.setPen(t.quiet);
  p.setFont(text_font(11));
  p.drawText(QRectF(room.left(), room.bottom() - map_words_px, room.width(), map_words_px), Qt::AlignCenter,
             QFontMetrics(p.font()).elidedText(map.foot, Qt::ElideRight, static_cast<int>(room.width())));
}

}  // namespace sunbreak::desktop
