#pragma once

#include "core/spectrum/spectrum.h"

namespace sunbreak::instruments {

/// The spectrum of the simulated fixture's light, 380 to 780 nm by 2 nm [W m⁻² nm⁻¹], where its PPFD is as given:
/// white emitters with some deep red beside them.
Spectrum lamp_spectrum(double ppfd);

}  // namespace sunbreak::instruments
