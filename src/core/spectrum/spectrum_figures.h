#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/spectrum/color.h"
#include "core/spectrum/color_rendering.h"
#include "core/spectrum/photon_bands.h"
#include "core/spectrum/spectral_peaks.h"

namespace sunbreak {

/// What a spectrum says of the light. A figure that takes wavelengths which were not measured is NaN or absent, and a
/// note says which.
struct SpectrumFigures {
  WavelengthRange range;  ///< measured
  std::vector<WavelengthRange> gaps;
  std::vector<BandShare> bands;     ///< in the order of photon_bands
  double ppfd_share = 0;            ///< photons of 400 to 700 nm over all measured ones
  double eppfd_over_ppfd = 0;       ///< photons of 400 to 750 nm over those of 400 to 700 nm
  double red_over_far_red = 0;      ///< photons of 600 to 700 nm over those of 700 to 800 nm
  double blue_over_red = 0;         ///< photons of 400 to 500 nm over those of 600 to 700 nm
  std::vector<SpectralPeak> peaks;  ///< by wavelength
  std::optional<Chromaticity> color;
  std::optional<ColorTemperature> temperature;
  std::optional<ColorRendering> rendering;
  double lux_per_ppfd = 0;     ///< [lx / (µmol m⁻² s⁻¹)]
  std::optional<double> ppfd;  ///< [µmol m⁻² s⁻¹], of an absolute spectrum
  std::vector<std::string> notes;

  double ppfd_per_lux() const { return 1 / lux_per_ppfd; }
};

SpectrumFigures spectrum_figures(const SpectralCurve& curve);

}  // namespace sunbreak
