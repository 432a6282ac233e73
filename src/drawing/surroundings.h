#pragma once

#include "core/quantity/display.h"
#include "drawing/canvas.h"
#include "drawing/map_fit.h"
#include "drawing/value_scale.h"
#include "record/test_record.h"

namespace sunbreak::drawing {

/// What stands around a map: walls as the bench states them, the door, places along its edges. `room_right` is where
/// the drawing ends [px].
void draw_surroundings(Canvas& canvas, const MapFit& fit, const record::Bench& bench, UnitSystem units,
                       double room_right);

/// The scale under a map, with what hatch and dots mean where there is a band.
void draw_key(Canvas& canvas, const MapFit& fit, const ValueScale& scale, const ValueText& text, bool with_band);

}  // namespace sunbreak::drawing
