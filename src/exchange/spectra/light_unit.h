#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/spectrum/spectrum.h"

namespace sunbreak::exchange {

/// What a title or a remark says of a column's unit.
struct LightUnit {
  SpectralScale scale = SpectralScale::Power;
  std::optional<double> to_absolute;  ///< what makes W m⁻² nm⁻¹ or µmol m⁻² s⁻¹ nm⁻¹ of its values, where it says so
};

/// Photons where it names them (µmol, photon, quanta, PPFD …), power where it names that (W, watt, irradiance, radiant,
/// energy …). Nothing where it names neither, or both.
std::optional<LightUnit> light_unit_in(std::string_view words);

/// A unit of illuminance or another quantity that is no light per wavelength (lux, counts of a reflectance …), in words
/// for why a column is not taken; "" where it names none.
std::string no_light_in(std::string_view words);

}  // namespace sunbreak::exchange
