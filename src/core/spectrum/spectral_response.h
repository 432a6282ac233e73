#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/result.h"
#include "core/spectrum/spectrum.h"

namespace sunbreak {

/// What a light sensor makes of each wavelength: its signal per photon, relative. An ideal quantum sensor has 1 from
/// 400 to 700 nm and 0 elsewhere.
struct SpectralResponse {
  std::vector<double> wavelengths_nm;
  std::vector<double> per_photon;  ///< relative; zero outside of the wavelengths given
  double uncertainty = 0.02;       ///< relative standard uncertainty of each value, where their maker tells none

  bool operator==(const SpectralResponse&) const = default;
};

/// Why a response cannot be used, as of spectrum_problem().
std::optional<Problem> response_problem(const SpectralResponse& response);

/// By what a reading under one light has to be multiplied where the sensor was calibrated under another.
struct SpectralCorrection {
  double factor = 1;
  double standard_uncertainty = 0;  ///< of the factor, relative
  double far_red_share = 0;         ///< of the sensor's signal under this light: from over 700 nm, which is no PPFD
  double short_share = 0;           ///< likewise from under 400 nm
  std::string finding;              ///< where the sensor is over 2 % off under this light: what it does
  std::vector<std::string> notes;
};

/// factor = (∫ N / ∫ R N) of the light over the same of the light of calibration, N photons, R response, PPFD from 400
/// to 700 nm. Its uncertainty: errors of the response alike within some 25 nm and free of each other beyond, and what
/// the spectra say of one another. A Problem where 400 to 700 nm of either light were not measured, or the sensor sees
/// none of it.
Result<SpectralCorrection> spectral_correction(const SpectralResponse& response, const SpectralCurve& light,
                                               const SpectralCurve& calibrated_under);

}  // namespace sunbreak
