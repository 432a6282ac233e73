#pragma once

#include "core/result.h"
#include "core/spectrum/spectral_response.h"
#include "core/spectrum/spectrum.h"
#include "record/kinds/fitted_lux_factor.h"
#include "record/kinds/measured_spectrum.h"
#include "record/kinds/meter.h"

namespace sunbreak::record {

/// The spectrum that a record holds. A Problem where its texts are no numbers, not alike in number, or no spectrum.
Result<Spectrum> spectrum_of(const MeasuredSpectrum& record);

/// Numbers with a blank between them. Nothing where a word is no number, or there are more than a spectrum may have.
std::optional<std::vector<double>> numbers_of(std::string_view text);
std::string text_of_numbers(const std::vector<double>& numbers);

/// What the shelf knows of a sensor's response and of the light that it was calibrated under, and of the light that a
/// lux factor was found under. Nothing where that is not known, or its texts are not sound.
std::optional<SpectralResponse> response_of(const Meter& meter);
std::optional<Spectrum> reference_light_of(const Meter& meter);
std::optional<Spectrum> light_of(const FittedLuxFactor& factor);
void put_response(Meter& meter, const SpectralResponse& response);
/// By its photons, relative.
void put_reference_light(Meter& meter, const Spectrum& light);
void put_light(FittedLuxFactor& factor, const Spectrum& light);

/// Puts a spectrum into a record, each number by the shortest decimal that reads back the same.
void put_spectrum(MeasuredSpectrum& record, const Spectrum& spectrum);

}  // namespace sunbreak::record
