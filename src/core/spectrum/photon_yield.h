#pragma once

#include <optional>

#include "core/spectrum/spectrum.h"

namespace sunbreak {

/// Photons of 400 to 700 nm in a joule of a light, all of what was measured of it counted as energy [µmol J⁻¹]: what a
/// lamp of this spectrum would give without any loss (λ ÷ (h · c · N_A), SI). Nothing where 400 to 700 nm were not
/// measured.
std::optional<double> photons_per_joule(const SpectralCurve& curve);

}  // namespace sunbreak
