#pragma once

#include <array>
#include <cstddef>

namespace sunbreak {

inline constexpr double table_step_nm = 5;  ///< of all three tables

/// Color matching functions x̄, ȳ, z̄ of the CIE 1931 standard observer (2°), 360 to 830 nm; ȳ is V(λ). Source: CIE 15.
inline constexpr double color_matching_from_nm = 360;
extern const std::array<std::array<double, 95>, 3> color_matching;

/// Components S0, S1, S2 of the phases of daylight, 300 to 830 nm, relative power. Source: CIE 15.
inline constexpr double daylight_from_nm = 300;
extern const std::array<std::array<double, 107>, 3> daylight_components;

/// Spectral radiance factors of the test colors 1 to 14, 380 to 780 nm. Source: CIE 13.3, to the two decimals that
/// other programs' tables have (test color 9: three), so that indices can be held against theirs; a third decimal moves
/// Ra by up to 0.3 under narrow lines.
inline constexpr double test_colors_from_nm = 380;
extern const std::array<std::array<double, 81>, 14> test_colors;

/// A table's value at a wavelength [nm], straight between its entries; 0 outside of them.
template <std::size_t N>
double table_value(const std::array<double, N>& table, double from_nm, double nm) {
  const double place = (nm - from_nm) / table_step_nm;
  if (!(place >= 0) || place > N - 1) return 0;
  const auto below = static_cast<std::size_t>(place);
  if (below + 1 >= N) return table[N - 1];
  const double share = place - static_cast<double>(below);
  return table[below] + share * (table[below + 1] - table[below]);
}

/// As table_value, by the cubic through the four entries around it: for color matching functions, that narrow lines are
/// weighed with between entries.
template <std::size_t N>
double table_value_cubic(const std::array<double, N>& table, double from_nm, double nm) {
  const double place = (nm - from_nm) / table_step_nm;
  if (!(place >= 1) || place >= N - 2) return table_value(table, from_nm, nm);
  const auto i = static_cast<std::size_t>(place);
  const double t = place - static_cast<double>(i);
  return table[i - 1] * (-t * (t - 1) * (t - 2) / 6) + table[i] * ((t + 1) * (t - 1) * (t - 2) / 2) +
         table[i + 1] * (-(t + 1) * t * (t - 2) / 2) + table[i + 2] * ((t + 1) * t * (t - 1) / 6);
}

}  // namespace sunbreak
