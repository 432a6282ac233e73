#pragma once

#include "record/json.h"

#include "core/figures/figure_table.h"

namespace sunbreak::cli {

/// The figures of a sweep as JSON; its keys are listed in docs/formats.md. Figures that the sweep does not have are
/// null.
record::Json figures_json(const SweepFigures& f, const Layout& layout, std::span<const double> ppfd);

/// Coverage of a band.
record::Json coverage_json(const Coverage& c);

}  // namespace sunbreak::cli
