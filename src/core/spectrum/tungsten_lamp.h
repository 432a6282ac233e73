#pragma once

#include "core/spectrum/spectrum.h"

namespace sunbreak {

/// CIE standard illuminant A: the light that sensors are usually calibrated under. Power, relative, 300 to 1000 nm.
Spectrum tungsten_lamp();

inline constexpr const char* tungsten_lamp_name = "tungsten lamp, 2856 K";

}  // namespace sunbreak
