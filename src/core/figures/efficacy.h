#pragma once

namespace sunbreak {

/// Photon flux and power of a footprint. Canopy efficacy counts the light that reaches the footprint; PPFD per watt is
/// another quantity, with another unit.
struct Efficacy {
  double canopy_efficacy_umol_j = 0;  ///< PPF on the area / wall power
  double ppfd_per_watt = 0;           ///< mean PPFD / wall power [µmol m⁻² s⁻¹ W⁻¹]
  double power_density_w_m2 = 0;      ///< wall power / area
};

/// From mean PPFD [µmol m⁻² s⁻¹], the area it holds for [m²] and the power at the wall plug [W], which is above 0.
constexpr Efficacy efficacy(double mean_ppfd, double area_m2, double power_w) {
  return {mean_ppfd * area_m2 / power_w, mean_ppfd / power_w, power_w / area_m2};
}

}  // namespace sunbreak
