#pragma once

#include <string>
#include <vector>

#include "exchange/spectra/spectrum_file.h"

namespace sunbreak::exchange {

/// A wavelength with its light as it stands in a file.
struct FileSample {
  double nm = 0, value = 0;
  int row = 0;  ///< from 1
};

/// Puts samples in order into `draft.spectrum`: falling ones are turned round; a row out of order is left out, and so
/// are rows of one wavelength with different light; all of it is told, as are missing rows of a regular spectrum, light
/// below zero and a top that is cut off. A Problem where over a tenth is out of order, or no spectrum is left.
std::optional<Problem> take_samples(std::vector<FileSample> samples, SpectrumDraft& draft);

}  // namespace sunbreak::exchange
