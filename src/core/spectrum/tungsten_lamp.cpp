#include "core/spectrum/tungsten_lamp.h"

#include "core/spectrum/color.h"

namespace sunbreak {

Spectrum tungsten_lamp() {
  constexpr double temperature_k = 2856;
  Spectrum light;
  const double unit = planckian_power(temperature_k, 560);
  for (int nm = 300; nm <= 1000; nm += 5) {
    light.wavelengths_nm.push_back(nm);
    light.values.push_back(planckian_power(temperature_k, nm) / unit);
  }
  return light;
}

}  // namespace sunbreak
