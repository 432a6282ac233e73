#pragma once

#include "core/result.h"
#include "core/spectrum/spectrum.h"

namespace sunbreak {

/// What a spectrum is brought to so that several can lie over each other.
enum class Normalization {
  Photons,  ///< photons of 400 to 700 nm are 1
  Peak      ///< the highest photon value is 1
};

/// The spectrum on the scale of photons, normalized. A Problem where 400 to 700 nm were not measured (Photons), or hold
/// no light.
Result<Spectrum> normalized(const SpectralCurve& curve, Normalization normalization);

/// Light of two fixtures side by side of which the second gives `share` (0 … 1) of the PPFD, normalized by photons,
/// over the wavelengths that both were measured at. A Problem where either has no PPFD to give a share of.
Result<Spectrum> mixed(const SpectralCurve& first, const SpectralCurve& second, double share);

/// second − first, both normalized, over the wavelengths that both were measured at: what is there more in the second.
/// A Problem as of normalized(). No spectrum of light: values go below zero.
Result<Spectrum> difference(const SpectralCurve& first, const SpectralCurve& second, Normalization normalization);

/// How far two spectra are from each other: half of ∫ |difference| of the two normalized by photons over 400 to 700 nm,
/// 0 (alike) … 1 (nothing in common). NaN where either has no PPFD.
double spectral_distance(const SpectralCurve& first, const SpectralCurve& second);

}  // namespace sunbreak
