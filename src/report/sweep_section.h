#pragma once

#include <kainjow/mustache.hpp>
#include <vector>

#include "drawing/light_scale.h"
#include "evaluation/evaluation.h"
#include "report/figure_sink.h"

namespace sunbreak::report {

/// The sweeps that a page prints, brightest stop first down the rungs.
using PrintedSweeps = std::vector<std::pair<const record::Sweep*, const evaluation::SweepView*>>;
PrintedSweeps printed_sweeps(const evaluation::Evaluation& evaluation, const ReportOptions& options);

/// What a grid is and how it is weighed.
std::string grid_words(const Layout& layout, UnitSystem units);

/// Each sweep: its map, figures, how sure they are, rings, curve, footprints, pictures and readings. Maps of a page
/// have one light scale.
void add_sweeps(kainjow::mustache::data& page, const evaluation::Evaluation& evaluation, const PrintedSweeps& printed,
                const drawing::ScaleRange& range, FigureSink& sink, const ReportOptions& options);

}  // namespace sunbreak::report
