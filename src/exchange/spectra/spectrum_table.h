#pragma once

#include <string_view>

#include "exchange/spectra/spectrum_file.h"

namespace sunbreak::exchange {

/// The table of read_spectra(), as UTF-8 text.
Result<SpectrumFile> read_spectrum_table(std::string_view text, const SpectrumOptions& options);

}  // namespace sunbreak::exchange
