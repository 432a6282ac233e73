#include "desktop/read/map_overlays.h"

#include "desktop/paint/painter_canvas.h"
#include "drawing/overlays.h"
#include "evaluation/rig_model.h"

namespace sunbreak::desktop {

void paint_cut(QPainter& p, const MapFit& fit, const Place& from, const Place& to) {
  PainterCanvas canvas(p);
  drawing::draw_cut(canvas, fit.plain(), from, to);
}

void paint_overlays(QPainter& p, const MapFit& fit, const Desk& desk, const MapSettings& settings, bool in_vectors) {
  PainterCanvas canvas(p, in_vectors);
  const drawing::MapFit plain = fit.plain();
  const Layout& layout = desk.view()->layout;
  const SweepFigures* figures = desk.figures();
  canvas.clip(plain.frame);
  if (settings.rings && figures) drawing::draw_rings(canvas, plain, layout, figures->rings);
  if (settings.footprints && figures) drawing::draw_nominal(canvas, plain, layout, figures->nominal, desk.units());
  if (settings.fixture) drawing::draw_fixture(canvas, plain, layout.footprint, evaluation::outline_of(*desk.test()));
  if (settings.coverage && figures && figures->coverage && settings.quantity != Quantity::Difference)
    drawing::draw_coverage(canvas, plain, layout, *figures->coverage, desk.units());
  if (settings.cut) drawing::draw_cut(canvas, plain, settings.cut->first, settings.cut->second);
  canvas.unclip();
}

}  // namespace sunbreak::desktop
