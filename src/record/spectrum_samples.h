#pragma once

#include "core/result.h"
#include "core/spectrum/spectrum.h"
#include "record/kinds/measured_spectrum.h"

namespace sunbreak::record {

/// The spectrum that a record holds. A Problem where its texts are no numbers, not alike in number, or no spectrum.
Result<Spectrum> spectrum_of(const MeasuredSpectrum& record);

/// Puts a spectrum into a record, each number by the shortest decimal that reads back the same.
void put_spectrum(MeasuredSpectrum& record, const Spectrum& spectrum);

}  // namespace sunbreak::record
