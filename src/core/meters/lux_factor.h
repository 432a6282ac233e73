#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/result.h"
#include "core/spectrum/spectrum.h"

namespace sunbreak {

/// What a lux meter and a quantum sensor showed at the same place, one after the other.
struct LuxPair {
  double lux = 0, ppfd = 0;
};

/// PPFD = k · lux, of one lux meter under one spectrum.
struct LuxFactor {
  double k = 0;           ///< [µmol m⁻² s⁻¹ lx⁻¹], through the origin
  double k_expanded = 0;  ///< half width of the interval that holds it in 95 %
  double r_squared = 0;   ///< of the line through the origin: share of the PPFD's variance that it tells
  double scatter = 0;     ///< relative standard deviation of a pair about the line
  double intercept = 0;   ///< [µmol m⁻² s⁻¹], of a line with one
  double intercept_expanded = 0;
  double slope_with_intercept = 0;
  double slope_expanded = 0;
  bool intercept_differs = false;  ///< from zero, with a chance under 1 % of saying so where it does not
  double bend = 0;                 ///< change of k from the lowest to the highest level, relative
  double bend_expanded = 0;
  bool curve_needed = false;               ///< likewise
  double lowest_lux = 0, highest_lux = 0;  ///< the levels it holds for
  std::vector<double> residuals;           ///< PPFD over k · lux − 1, one a pair
  std::vector<std::string> reasons;        ///< why it does not hold; empty where it does

  bool holds() const { return reasons.empty(); }
  double inverse() const { return 1 / k; }
};

/// Weighted least squares through the origin. The scatter may grow with the light, be the same at all levels, or
/// a mixture of both: each is weighed by how likely the residuals make it (restricted likelihood). It holds
/// where there are five pairs over two levels a factor of two apart, neither an intercept nor a curve is needed, and
/// pairs lie within 10 % of the line. A Problem where there are under three pairs, or one is not positive and finite.
Result<LuxFactor> lux_factor(const std::vector<LuxPair>& pairs);

/// What two spectra make of the same lux meter.
struct SpectrumMatch {
  double distance = 0;      ///< spectral_distance()
  double factor_ratio = 1;  ///< PPFD per lux of the second over that of the first, by the standard eye
};
/// Nothing where either spectrum has no PPFD or no lux.
std::optional<SpectrumMatch> spectrum_match(const SpectralCurve& fitted_under, const SpectralCurve& here);

/// Why a factor must not be used: the spectrum here is another than it was fitted under, or the level lies over a tenth
/// outside of those it was fitted at. Where either spectrum is not known `same_class` decides, by the words that both
/// are described with. Nothing where it may be used.
std::optional<Problem> lux_factor_refused(const std::optional<SpectrumMatch>& match, bool same_class, double lux,
                                          double lowest_lux, double highest_lux);

/// Spectra are of one class where they differ in less than a tenth of their photons and their factors by less than 2 %:
/// a tenth alone may move the factor by a quarter, from red to green.
inline constexpr double same_class_distance = 0.10, same_class_factor = 0.02;

}  // namespace sunbreak
