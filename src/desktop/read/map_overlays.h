#pragma once

#include <QPainter>

#include "desktop/desk/desk.h"
#include "desktop/paint/map_fit.h"
#include "desktop/read/map_settings.h"

namespace sunbreak::desktop {

/// What the settings ask to be drawn over the map of the chosen sweep: the fixture's outline, usual growing areas, the
/// borders between rings, the largest rectangles and circle in the target's band, the cut.
void paint_overlays(QPainter& p, const MapFit& fit, const Desk& desk, const MapSettings& settings,
                    bool in_vectors = false);

/// The cut with its ends named A and B.
void paint_cut(QPainter& p, const MapFit& fit, const Place& from, const Place& to);

}  // namespace sunbreak::desktop
