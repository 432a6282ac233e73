#pragma once

#include <span>
#include <vector>

namespace sunbreak {

/// A small emitter facing straight down whose intensity falls with cosᵐ of the angle from its axis.
struct Emitter {
  double x_m = 0, y_m = 0, z_m = 0;  ///< z above the receiving plane
  double ppf_umol_s = 0;
  double exponent = 1;  ///< m; 1 is a Lambertian emitter
  double tilt_x = 0;    ///< slope of the axis toward +x (tangent)
};

/// Direct PPFD [µmol m⁻² s⁻¹] at a place of the plane z = 0 facing up, without walls:
/// Σ Φ (m+1)/(2π) · cosᵐθ · cosψ / d², θ from the emitter's axis, ψ from the vertical.
double direct_ppfd(std::span<const Emitter> emitters, double x_m, double y_m);

}  // namespace sunbreak
