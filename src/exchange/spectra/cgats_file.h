#pragma once

#include <string_view>

#include "exchange/spectra/spectrum_file.h"

namespace sunbreak::exchange {

/// Whether a text is of the CGATS.17 family with a spectrum in it.
bool looks_like_cgats(std::string_view text);

/// A CGATS.17 text with SPECTRAL_BANDS, SPECTRAL_START_NM and SPECTRAL_END_NM, as UTF-8: one set a spectrum, of power.
Result<SpectrumFile> read_cgats(std::string_view text, const SpectrumOptions& options);

}  // namespace sunbreak::exchange
