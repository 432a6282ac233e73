#pragma once

#include <vector>

#include "core/spectrum/spectrum.h"

namespace sunbreak {

/// A place where a spectrum, on the scale of photons, is higher than around it.
struct SpectralPeak {
  double nm = 0;
  double width_nm =
      0;              ///< between the half heights; twice that of one side where a neighbor hides the other; NaN: both
  double share = 0;   ///< of all measured photons: those between the lowest places to either side
  double height = 0;  ///< of the highest
};

/// Peaks by wavelength. What rises by less than 3 % of the highest over the dips beside it, or by less than four times
/// the noise of the samples, is none. Empty where the usual step is over 10 nm: a peak may lie between the samples.
std::vector<SpectralPeak> spectral_peaks(const SpectralCurve& curve);

/// Scatter from sample to sample on the scale of photons, as a standard deviation: by the median second difference,
/// which a smooth spectrum hardly enters.
double sample_noise(const SpectralCurve& curve);

}  // namespace sunbreak
