#pragma once

#include <array>
#include <optional>

#include "core/spectrum/spectrum.h"
#include "core/spectrum/standard_tables.h"

namespace sunbreak {

using Tristimulus = std::array<double, 3>;  ///< X, Y, Z

struct Chromaticity {
  double x = 0, y = 0;  ///< CIE 1931
  double u = 0, v = 0;  ///< CIE 1960, in which distances from the Planckian locus are told
};

/// The wavelengths that an eye sees color by (CIE 15), and those that have to be there: what lies outside of these
/// weighs under 0.2 % for a flat spectrum.
inline constexpr WavelengthRange color_range{360, 830}, least_color_range{400, 700};

/// Calls `visit` with wavelengths and power · width over a part of color_range, in straight lines where the spectrum
/// bends (SpectralCurve::straightened), as CIE 15 has it for lamps with lines; beyond the measured ends the light is
/// taken to go on as it is there, as CIE 15 has it too. A sum over what is smooth between the entries of the standard
/// tables is its integral.
template <typename Visit>
void each_color_node(const SpectralCurve& straightened, WavelengthRange range, Visit visit) {
  const auto visit_power = [&](const SpectralCurve& curve, WavelengthRange part) {
    curve.each_node(part, table_step_nm, [&](double nm, double width) { visit(nm, width * curve.power(nm)); });
  };
  visit_power(straightened, range);
  const WavelengthRange measured = straightened.range();
  const auto beyond = [&](WavelengthRange part, double end_nm) {
    if (!(part.width_nm() > 0)) return;
    const double power = straightened.power(end_nm);
    visit_power(SpectralCurve(Spectrum{{part.from_nm, part.to_nm}, {power, power}, SpectralScale::Power, false}), part);
  };
  beyond({range.from_nm, measured.from_nm}, measured.from_nm);
  beyond({measured.to_nm, range.to_nm}, measured.to_nm);
}

/// The color matching functions at a wavelength, by cubics between the entries of their table.
Tristimulus color_matching_at(double nm);

/// Luminous efficacy of radiation at 555 nm [lm/W], SI.
inline constexpr double luminous_efficacy_lm_w = 683;

/// X, Y, Z of a spectrum, relative: ∫ power · (x̄, ȳ, z̄).
Tristimulus tristimulus(const SpectralCurve& curve);

Chromaticity chromaticity(const Tristimulus& t);

/// Relative power of a Planckian radiator at a wavelength [nm]; c2 = 1.4388e-2 m K as CIE 15 has it.
double planckian_power(double temperature_k, double nm);

/// Correlated color temperature, and the distance from the Planckian locus: above it (greenish) positive.
struct ColorTemperature {
  double cct_k = 0;
  double duv = 0;
};

inline constexpr double lowest_cct_k = 1000, highest_cct_k = 100000;
inline constexpr double largest_duv = 0.05;  ///< farther off, no temperature is correlated (CIE 15)

/// By a table of the locus and a triangle or parabola through its nearest entries, refined once around the answer:
/// Ohno, Practical use and calculation of CCT and Duv, Leukos 10 (2014). Nothing beyond `largest_duv` or outside of
/// 1,000 to 100,000 K.
std::optional<ColorTemperature> color_temperature(const Chromaticity& color);

/// Illuminance over PPFD [lx / (µmol m⁻² s⁻¹)]: 683 ∫ V power over ∫ photons 400 … 700 nm. NaN unless 400 to 700 nm
/// were measured.
double lux_per_ppfd(const SpectralCurve& curve);

}  // namespace sunbreak
