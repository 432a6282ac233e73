#pragma once

#include <string>
#include <vector>

#include "core/spectrum/spectrum_figures.h"
#include "record/kinds/measured_spectrum.h"

namespace sunbreak::evaluation {

/// "center · 100 %"
std::string spectrum_name(const record::MeasuredSpectrum& spectrum);

/// "3222 K, Ra 68; blue 14, green 27, red 54, far red 5 % of the photons": what is known of it.
std::string spectrum_summary(const SpectrumFigures& figures);

/// A figure of a spectrum in words, as screen, page and command line show it.
struct SpectrumRow {
  std::string id, label, value, definition;
};

std::vector<SpectrumRow> spectrum_rows(const SpectrumFigures& figures);

}  // namespace sunbreak::evaluation
