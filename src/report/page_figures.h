#pragma once

#include <optional>
#include <string>

#include "core/figures/sweep_figures.h"
#include "core/quantity/display.h"
#include "drawing/drawing.h"
#include "drawing/interval_axis.h"
#include "drawing/light_scale.h"
#include "evaluation/lineup/lineup.h"
#include "evaluation/sweep_view.h"

/// The figures of a page. Each refers to what it is given.
namespace sunbreak::report {

/// The map of a sweep, as Read shows it; its floor is `longest_side` points long.
drawing::Drawing map_figure(const record::TestRecord& record, const evaluation::SweepView& view,
                            const std::optional<Band>& band, const drawing::ScaleRange& range, UnitSystem units,
                            double longest_side = 560);

/// Light at the places of a layout alone, without bench or scale: a map to stand beside another.
drawing::Drawing values_figure(const Layout& layout, const std::vector<double>& ppfd, const drawing::ScaleRange& range,
                               const std::string& label);

/// Mean of each ring as bars, wall first, with the band's low end.
drawing::Drawing rings_figure(const SweepFigures& figures, const drawing::ScaleRange& range,
                              const std::optional<Band>& band, UnitSystem units);

/// Area at or above each PPFD as a line, with the band's low end marked.
drawing::Drawing area_curve_figure(const evaluation::SweepView& view, const std::optional<Band>& band,
                                   UnitSystem units);

/// An estimate with its ± on an axis that it shares with others.
drawing::Drawing interval_figure(const drawing::IntervalAxis& axis, const Standing& standing, const std::string& label,
                                 bool chosen = false);

}  // namespace sunbreak::report
