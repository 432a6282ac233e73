#pragma once

#include <nlohmann/json.hpp>

#include "core/figures/figure_table.h"

namespace sunbreak::cli {

/// The figures of a sweep as JSON; its keys are listed in docs/formats.md. Figures that the sweep does not have are
/// null.
nlohmann::ordered_json figures_json(const SweepFigures& f, const Layout& layout, std::span<const double> ppfd);

/// Coverage of a band.
nlohmann::ordered_json coverage_json(const Coverage& c);

}  // namespace sunbreak::cli
