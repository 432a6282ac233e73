#pragma once

#include <QPainter>

#include "desktop/paint/map_fit.h"
#include "drawing/map_drawing.h"

namespace sunbreak::desktop {

using drawing::MapScene;

/// Paints a map in the colors of the present look. `in_vectors`: for pictures in vectors.
void paint_map(QPainter& p, const MapFit& fit, MapScene scene, bool in_vectors = false);

}  // namespace sunbreak::desktop
