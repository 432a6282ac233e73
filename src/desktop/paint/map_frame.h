#pragma once

#include <QPainter>
#include <optional>

#include "core/figures/coverage.h"
#include "core/quantity/display.h"
#include "desktop/paint/map_fit.h"
#include "desktop/paint/value_scale.h"
#include "record/test_record.h"

namespace sunbreak::desktop {

/// What stands around a map: walls as the bench states them, the door, places along its edges.
void paint_surroundings(QPainter& p, const MapFit& fit, const record::Bench& bench, UnitSystem units);

/// The scale under a map, with what hatch and dots mean where there is a band.
void paint_key(QPainter& p, const MapFit& fit, const ValueScale& scale, const ValueText& text, bool with_band);

/// A tile that repeats without seams: thin diagonals for too dim, dots for too bright.
QBrush hatch(bool dim);

/// The same drawn as lines and dots, for pictures in vectors; runs on from box to box.
void hatch_box(QPainter& p, const QRectF& box, bool dim);

}  // namespace sunbreak::desktop
