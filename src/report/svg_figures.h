#pragma once

#include <optional>
#include <string>

#include "core/figures/sweep_figures.h"
#include "core/quantity/display.h"
#include "evaluation/sweep_view.h"
#include "report/light_scale.h"

namespace sunbreak::report {

/// The map of a sweep as an SVG element: stations with their values, walls, door, the places in ruled units, the light
/// scale; diagonal hatch where below the band, dots where above. Numbers are left out on dense grids.
std::string map_svg(const record::TestRecord& bundle, const evaluation::SweepView& view,
                    const std::optional<Band>& band, const ScaleRange& range, UnitSystem units);

/// Mean of each ring as bars, wall first.
std::string rings_svg(const SweepFigures& figures, const ScaleRange& range, UnitSystem units);

/// Area at or above each PPFD as a line, with the band's low end marked.
std::string area_curve_svg(const evaluation::SweepView& view, const std::optional<Band>& band, UnitSystem units);

}  // namespace sunbreak::report
