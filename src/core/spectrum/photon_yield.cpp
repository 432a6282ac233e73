#include "core/spectrum/photon_yield.h"

#include "core/spectrum/photon_bands.h"

namespace sunbreak {

std::optional<double> photons_per_joule(const SpectralCurve& curve) {
  if (!curve.covers(ppfd_range)) return {};
  const double joules = curve.power_integral(curve.range(), [](double) { return 1.0; });
  if (!(joules > 0)) return {};
  return curve.photon_integral(ppfd_range) * umol_per_joule_nm / joules;
}

}  // namespace sunbreak
