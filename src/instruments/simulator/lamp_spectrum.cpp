#include "instruments/simulator/lamp_spectrum.h"

#include <cmath>

#include "core/spectrum/photon_bands.h"

namespace sunbreak::instruments {
namespace {

double hump(double nm, double center, double below, double above) {
  const double sigma = nm < center ? below : above;
  return std::exp(-std::pow((nm - center) / sigma, 2) / 2);
}

}  // namespace

Spectrum lamp_spectrum(double ppfd) {
  Spectrum light{{}, {}, SpectralScale::Power, true};
  for (int nm = 380; nm <= 780; nm += 2) {
    light.wavelengths_nm.push_back(nm);
    light.values.push_back(0.55 * hump(nm, 451, 8, 11) + hump(nm, 592, 52, 62) + 1.35 * hump(nm, 660, 9, 8));
  }
  const double unscaled = umol_per_joule_nm * SpectralCurve(light).photon_integral(ppfd_range);
  for (double& value : light.values) value *= ppfd / unscaled;
  return light;
}

}  // namespace sunbreak::instruments
