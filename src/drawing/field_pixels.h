#pragma once

#include <optional>

#include "core/figures/coverage.h"
#include "core/sweep/field.h"
#include "drawing/map_fit.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {

/// A field as a picture, and where it goes on the map.
struct FieldPixels {
  Pixels pixels;
  Box place;
};

/// The continuous field in the scale's colors, a value a pixel of `pixels_a_point`, over the part of the measured area
/// that the frame shows; hatched below the band, dotted above it, clear where unknown.
FieldPixels field_pixels(const Field& field, const MapFit& fit, const ValueScale& scale, const Palette& palette,
                         const std::optional<Band>& band, double pixels_a_point);

}  // namespace sunbreak::drawing
