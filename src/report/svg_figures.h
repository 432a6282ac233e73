#pragma once

#include <optional>
#include <string>

#include "core/figures/sweep_figures.h"
#include "core/quantity/display.h"
#include "drawing/canvas.h"
#include "drawing/light_scale.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::report {

/// The map of a sweep as an SVG element, as Read shows it; its floor is `longest_side` px long.
std::string map_svg(const record::TestRecord& record, const evaluation::SweepView& view,
                    const std::optional<Band>& band, const drawing::ScaleRange& range, UnitSystem units,
                    const drawing::Palette& palette = drawing::paper_palette(), double longest_side = 560);

/// Light at the places of a layout alone, without bench or scale: a map to stand beside another.
std::string values_svg(const Layout& layout, const std::vector<double>& ppfd, const drawing::ScaleRange& range,
                       const std::string& label, const drawing::Palette& palette = drawing::paper_palette());

/// Mean of each ring as bars, wall first, with the band's low end.
std::string rings_svg(const SweepFigures& figures, const drawing::ScaleRange& range, const std::optional<Band>& band,
                      UnitSystem units, const drawing::Palette& palette = drawing::paper_palette());

/// Area at or above each PPFD as a line, with the band's low end marked.
std::string area_curve_svg(const evaluation::SweepView& view, const std::optional<Band>& band, UnitSystem units,
                           const drawing::Palette& palette = drawing::paper_palette());

}  // namespace sunbreak::report
