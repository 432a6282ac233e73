#pragma once

#include <QImage>
#include <optional>

#include "core/figures/coverage.h"
#include "core/sweep/field.h"
#include "desktop/paint/map_fit.h"
#include "desktop/paint/value_scale.h"

namespace sunbreak::desktop {

/// A field as a picture, and where it goes on the map.
struct FieldImage {
  QImage image;
  QRectF place;
};

/// The continuous field in the scale's colors, a value a pixel of `pixels_a_point`, over the part of the measured area
/// that the frame shows; hatched below the band, dotted above it, clear where unknown.
FieldImage field_image(const Field& field, const MapFit& fit, const ValueScale& scale, const std::optional<Band>& band,
                       double pixels_a_point);

}  // namespace sunbreak::desktop
