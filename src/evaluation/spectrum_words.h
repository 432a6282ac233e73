#pragma once

#include <string>
#include <vector>

#include "core/spectrum/spectrum_figures.h"

namespace sunbreak::evaluation {

/// A figure of a spectrum in words, as screen, page and command line show it.
struct SpectrumRow {
  std::string id, label, value, definition;
};

std::vector<SpectrumRow> spectrum_rows(const SpectrumFigures& figures);

}  // namespace sunbreak::evaluation
