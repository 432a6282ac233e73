#include "core/spectrum/spectral_mix.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/spectrum/photon_bands.h"

namespace sunbreak {
namespace {

/// `share_first` of the one and `share_second` of the other at every wavelength that either was sampled at and both
/// were measured at.
Spectrum together(const SpectralCurve& first, double share_first, const SpectralCurve& second, double share_second) {
  std::vector<double> places = first.spectrum().wavelengths_nm;
  const auto& others = second.spectrum().wavelengths_nm;
  places.insert(places.end(), others.begin(), others.end());
  std::sort(places.begin(), places.end());
  Spectrum sum;
  sum.scale = SpectralScale::Photons;
  // Two of very many samples have together no more than one may have.
  const double closest_nm =
      std::max(1e-6, (places.back() - places.front()) / (most_samples - 1.0) * (places.size() > most_samples ? 1 : 0));
  for (const double nm : places) {
    if (!sum.wavelengths_nm.empty() && nm - sum.wavelengths_nm.back() < closest_nm) continue;
    const double a = first.photons(nm), b = second.photons(nm);
    if (std::isnan(a) || std::isnan(b)) continue;
    sum.wavelengths_nm.push_back(nm);
    sum.values.push_back(share_first * a + share_second * b);
  }
  return sum;
}

Problem too_little_in_common() {
  return {"The two spectra have no wavelengths in common", "they cannot be put together",
          "measure both over 400 to 700 nm at least"};
}

}  // namespace

Result<Spectrum> normalized(const SpectralCurve& curve, Normalization normalization) {
  Spectrum light = curve.spectrum();
  double unit = 0;
  if (normalization == Normalization::Photons) {
    if (!curve.covers(ppfd_range))
      return Problem{
          fmt::format("The spectrum was measured from {:g} to {:g} nm", curve.range().from_nm, curve.range().to_nm),
          "its PPFD takes all of 400 to 700 nm, without a gap", "measure over that range, or compare by peak"};
    unit = curve.photon_integral(ppfd_range);
  }
  for (std::size_t i = 0; i < light.values.size(); ++i) {
    if (light.scale == SpectralScale::Power) light.values[i] *= light.wavelengths_nm[i];
    if (normalization == Normalization::Peak) unit = std::max(unit, light.values[i]);
  }
  if (!(unit > 0))
    return Problem{"The spectrum has no light between 400 and 700 nm", "it has no PPFD to be brought to the same",
                   "compare by peak"};
  for (double& value : light.values) value /= unit;
  light.scale = SpectralScale::Photons;
  light.absolute = false;
  return light;
}

Result<Spectrum> mixed(const SpectralCurve& first, const SpectralCurve& second, double share) {
  const auto a = normalized(first, Normalization::Photons), b = normalized(second, Normalization::Photons);
  if (!a) return a.problem();
  if (!b) return b.problem();
  Spectrum mix = together(SpectralCurve(a.value()), 1 - share, SpectralCurve(b.value()), share);
  if (spectrum_problem(mix)) return too_little_in_common();
  return mix;
}

Result<Spectrum> difference(const SpectralCurve& first, const SpectralCurve& second, Normalization normalization) {
  const auto a = normalized(first, normalization), b = normalized(second, normalization);
  if (!a) return a.problem();
  if (!b) return b.problem();
  Spectrum rest = together(SpectralCurve(a.value()), -1, SpectralCurve(b.value()), 1);
  if (rest.wavelengths_nm.size() < 2) return too_little_in_common();
  return rest;
}

double spectral_distance(const SpectralCurve& first, const SpectralCurve& second) {
  const auto rest = difference(first, second, Normalization::Photons);
  if (!rest) return std::numeric_limits<double>::quiet_NaN();
  // Straight between samples, split where the difference changes its sign.
  const auto& nm = rest.value().wavelengths_nm;
  const auto& d = rest.value().values;
  double sum = 0;
  for (std::size_t i = 0; i + 1 < nm.size(); ++i) {
    const double from = std::max(nm[i], ppfd_range.from_nm), to = std::min(nm[i + 1], ppfd_range.to_nm);
    if (!(to > from)) continue;
    const auto at = [&](double place) { return d[i] + (d[i + 1] - d[i]) * (place - nm[i]) / (nm[i + 1] - nm[i]); };
    const double a = at(from), b = at(to);
    sum += (to - from) * (a * b >= 0 ? std::fabs(a + b) / 2 : (a * a + b * b) / (2 * (std::fabs(a) + std::fabs(b))));
  }
  return sum / 2;
}

}  // namespace sunbreak
