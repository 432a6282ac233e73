#pragma once

#include "record/json.h"

#include "core/spectrum/spectrum_figures.h"

namespace sunbreak::exchange {

/// A band that a user named, and its photons.
struct OwnBand {
  WavelengthRange range;
  BandShare share;
};

/// A spectrum's figures as the command line and packages tell them; what is not known is null.
record::Json spectrum_json(const SpectrumFigures& figures, const std::vector<OwnBand>& own = {});

}  // namespace sunbreak::exchange
