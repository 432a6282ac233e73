#pragma once

#include <optional>
#include <vector>

#include "core/figures/coverage.h"
#include "core/figures/rings.h"
#include "core/quantity/display.h"
#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// How high the bars of so many rings are [px].
double ring_bars_height(std::size_t rings);

/// Mean of each ring as bars, wall first, colored by the light scale, its daily light over the photoperiod beside it;
/// the band's low end as a dashed line.
void draw_ring_bars(Canvas& canvas, const Box& room, const std::vector<Ring>& rings, const ScaleRange& range,
                    const std::optional<Band>& band, UnitSystem units, double photoperiod_h);

}  // namespace sunbreak::drawing
