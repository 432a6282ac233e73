#pragma once

#include <vector>

#include "record/kinds/measured_spectrum.h"

namespace sunbreak::book {

/// Spectra of the sample fixture "Ostler Six-Bar" at its center, at full and dimmed, without test.
std::vector<record::MeasuredSpectrum> sample_spectra();

}  // namespace sunbreak::book
