#pragma once

#include <vector>

#include "core/bench/place.h"
#include "core/figures/sweep_figures.h"
#include "core/optics/nominal_fixture.h"
#include "core/quantity/display.h"
#include "drawing/canvas.h"
#include "drawing/map_fit.h"

namespace sunbreak::drawing {

/// Lines over a map, in two tones so that they show on dark and on light alike, with labels that stay inside it. What
/// they are drawn on is to be clipped to the map.

/// Borders between rings of stations, with the mean of each.
void draw_rings(Canvas& canvas, const MapFit& fit, const Layout& layout, const std::vector<Ring>& rings);
/// Nominal footprints, filled dots for those that pass.
void draw_nominal(Canvas& canvas, const MapFit& fit, const Layout& layout, const std::vector<NominalFootprint>& sizes,
                  UnitSystem units);
/// The outline of the fixture over the middle of the floor.
void draw_fixture(Canvas& canvas, const MapFit& fit, const Footprint& floor, const FixtureOutline& outline);
/// The largest rectangle in the band, the largest centered one, and the largest centered circle.
void draw_coverage(Canvas& canvas, const MapFit& fit, const Layout& layout, const Coverage& coverage, UnitSystem units);
/// A cut from A to B.
void draw_cut(Canvas& canvas, const MapFit& fit, const Place& from, const Place& to);

}  // namespace sunbreak::drawing
