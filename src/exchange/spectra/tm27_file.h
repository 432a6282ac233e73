#pragma once

#include <string_view>

#include "exchange/spectra/spectrum_file.h"

namespace sunbreak::exchange {

/// An XML document of a spectral distribution as of IES TM-27-14. Its quantity has to be one of light (flux, intensity,
/// irradiance, radiance, exitance, relative), which is power.
Result<SpectrumFile> read_tm27(std::string_view bytes, const SpectrumOptions& options);

}  // namespace sunbreak::exchange
