#pragma once

#include <array>
#include <string_view>
#include <vector>

#include "core/result.h"
#include "core/spectrum/spectrum.h"

namespace sunbreak {

/// A range of wavelengths with a name.
struct PhotonBand {
  std::string_view id, label;
  WavelengthRange range;
};

/// The bands that photon shares are told for. UV-B and UV-A: ISO 21348 (280 to 315, 315 to 400 nm).
inline constexpr std::array<PhotonBand, 6> photon_bands{{{"uv_b", "UV-B", {280, 315}},
                                                         {"uv_a", "UV-A", {315, 400}},
                                                         {"blue", "blue", {400, 500}},
                                                         {"green", "green", {500, 600}},
                                                         {"red", "red", {600, 700}},
                                                         {"far_red", "far red", {700, 800}}}};

inline constexpr WavelengthRange ppfd_range{400, 700};   ///< PPFD: all photons count alike
inline constexpr WavelengthRange eppfd_range{400, 750};  ///< ePPFD: with the far red that works together with these

/// The photons of a range as a share of all photons that were measured.
struct BandShare {
  double share = 0;          ///< of the measured part of the range; NaN where none of it was measured
  WavelengthRange measured;  ///< that part, from its first to its last wavelength
  bool whole = false;        ///< all of the range was measured, but for 1 nm at either end

  bool any() const { return measured.width_nm() > 0; }
};

BandShare band_share(const SpectralCurve& curve, WavelengthRange band);

/// A band that a user names: "640-680", "640–680 nm" or "640 to 680". A Problem where it is no range of rising
/// wavelengths that a spectrum may have.
Result<WavelengthRange> own_band(std::string_view text);

/// Photons of two ranges over each other. NaN where less than four fifths of either was measured, or the lower has no
/// light over a ten-thousandth of the upper.
double photon_ratio(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower);

/// Photons of one range over those of another; NaN unless all of both was measured, but for 1 nm at either end.
double whole_photon_ratio(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower);

}  // namespace sunbreak
