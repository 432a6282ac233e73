#include "desktop/paint/map_painter.h"

#include "desktop/paint/painter_canvas.h"

namespace sunbreak::desktop {

void paint_map(QPainter& p, const MapFit& fit, MapScene scene, bool in_vectors) {
  PainterCanvas canvas(p, in_vectors);
  scene.room_right = p.viewport().right();
  drawing::draw_map(canvas, fit.plain(), scene);
}

}  // namespace sunbreak::desktop
