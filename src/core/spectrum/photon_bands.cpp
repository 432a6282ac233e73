#include "core/spectrum/photon_bands.h"

#include <algorithm>
#include <limits>

namespace sunbreak {
namespace {

constexpr double not_known = std::numeric_limits<double>::quiet_NaN();
constexpr double enough_of_band = 0.8;
constexpr double least_ratio_below = 1e-4;

double ratio_of(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower) {
  const double above = curve.photon_integral(upper), below = curve.photon_integral(lower);
  return below > 0 && below > least_ratio_below * above ? above / below : not_known;
}

}  // namespace

BandShare band_share(const SpectralCurve& curve, WavelengthRange band) {
  BandShare told{not_known, {}, curve.covers(band)};
  const WavelengthRange all = curve.range();
  if (curve.measured_nm(band) <= 0) return told;
  told.measured = {std::max(band.from_nm, all.from_nm), std::min(band.to_nm, all.to_nm)};
  const double whole = curve.photon_integral(all);
  if (whole > 0) told.share = curve.photon_integral(band) / whole;
  return told;
}

double photon_ratio(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower) {
  for (const WavelengthRange range : {upper, lower})
    if (curve.measured_nm(range) < enough_of_band * range.width_nm()) return not_known;
  return ratio_of(curve, upper, lower);
}

double whole_photon_ratio(const SpectralCurve& curve, WavelengthRange upper, WavelengthRange lower) {
  return curve.covers(upper) && curve.covers(lower) ? ratio_of(curve, upper, lower) : not_known;
}

}  // namespace sunbreak
