#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/result.h"

namespace sunbreak {

/// What a spectrum's values are proportional to, per nanometer.
enum class SpectralScale { Photons, Power };

/// Light per wavelength as it was measured. Wavelengths rise strictly; values may be a little below zero, where the
/// dark was taken off. What lies outside of the first and the last wavelength, or in a gap, is not known.
struct Spectrum {
  std::vector<double> wavelengths_nm;
  std::vector<double> values;  ///< [any, or µmol m⁻² s⁻¹ nm⁻¹ or W m⁻² nm⁻¹ where absolute]
  SpectralScale scale = SpectralScale::Power;
  bool absolute = false;  ///< values are photon flux density or irradiance, not only proportional to it

  bool operator==(const Spectrum&) const = default;
};

inline constexpr double shortest_nm = 100, longest_nm = 5000;  ///< of wavelengths that a spectrum may have
inline constexpr std::size_t most_samples = 20000;

/// Photons per energy: 1 J of light of wavelength λ [nm] is λ · this [µmol]. λ / (h c N_A), SI of 2019.
inline constexpr double umol_per_joule_nm = 1e-3 / (6.62607015e-34 * 299792458.0 * 6.02214076e23);

struct WavelengthRange {
  double from_nm = 0, to_nm = 0;
  double width_nm() const { return to_nm - from_nm; }
  bool operator==(const WavelengthRange&) const = default;
};

/// Why a spectrum cannot be worked with: fewer than two samples, wavelengths that do not rise, a value that is no
/// number or beyond 1e12, no light at all. Nothing where it can.
std::optional<Problem> spectrum_problem(const Spectrum& spectrum);

/// A spectrum between its samples. Between two samples runs the cubic through four neighbors where these bend alike, as
/// smooth light does, and a straight line elsewhere: at lines, edges and the ends. In a spectrum of over 20 samples a
/// step of over 10 nm that is over four times the usual one is a gap: nothing is known there. Immutable; any thread may
/// read it.
class SpectralCurve {
 public:
  /// `spectrum` has no spectrum_problem().
  explicit SpectralCurve(Spectrum spectrum);

  /// A curve as it is drawn through a few points: straight lines, without gaps. For a sensor's response.
  static SpectralCurve drawn(Spectrum spectrum);
  /// The same samples with a straight line wherever the cubic departs from it by over a thousandth of the light around.
  SpectralCurve straightened() const;

  const Spectrum& spectrum() const { return spectrum_; }
  WavelengthRange range() const;
  const std::vector<WavelengthRange>& gaps() const { return gaps_; }
  double usual_step_nm() const { return usual_step_nm_; }

  /// The part of `range` that was measured [nm]; gaps taken off.
  double measured_nm(WavelengthRange range) const;
  /// Whether all of a range was measured, but for `slack_nm` at either end.
  bool covers(WavelengthRange range, double slack_nm = 1) const;

  /// The value at a wavelength on the spectrum's own scale; NaN outside and in gaps.
  double value(double nm) const;
  /// The value as photons, relative to those of power of the same unit: value · λ where the scale is power.
  double photons(double nm) const;
  double power(double nm) const;

  /// ∫ photons · weight(λ) dλ over the measured part of a range. `weight` is smooth between multiples of `grid_nm` (0:
  /// everywhere); exact for the curve times a weight that is a cubic between them.
  template <typename Weight>
  double photon_integral(WavelengthRange range, Weight weight, double grid_nm = 0) const {
    double sum = 0;
    each_node(range, grid_nm, [&](double nm, double width) { sum += width * photons(nm) * weight(nm); });
    return sum;
  }
  double photon_integral(WavelengthRange range) const {
    return photon_integral(range, [](double) { return 1.0; });
  }
  /// ∫ power · weight(λ) dλ, likewise.
  template <typename Weight>
  double power_integral(WavelengthRange range, Weight weight, double grid_nm = 0) const {
    double sum = 0;
    each_node(range, grid_nm, [&](double nm, double width) { sum += width * power(nm) * weight(nm); });
    return sum;
  }

  /// Calls `visit` with the wavelengths and widths of a Gauss rule of four nodes between all breaks of curve and grid.
  template <typename Visit>
  void each_node(WavelengthRange range, double grid_nm, Visit visit) const;

 private:
  std::size_t segment_of(double nm) const;
  double value_in(std::size_t segment, double nm) const;

  struct Segment {
    double slope = 0, bend = 0, twist = 0;  ///< v + slope·s + s(s − h)·(bend + twist·s), s from the segment's start
    bool gap = false;
  };
  Spectrum spectrum_;
  std::vector<Segment> segments_;
  std::vector<WavelengthRange> gaps_;
  double usual_step_nm_ = 0;
};

template <typename Visit>
void SpectralCurve::each_node(WavelengthRange range, double grid_nm, Visit visit) const {
  static constexpr double place[4] = {0.06943184420297371, 0.33000947820757187, 0.66999052179242813,
                                      0.93056815579702629};
  static constexpr double share[4] = {0.17392742256872693, 0.32607257743127307, 0.32607257743127307,
                                      0.17392742256872693};
  const auto& nm = spectrum_.wavelengths_nm;
  for (std::size_t i = segment_of(range.from_nm); i < segments_.size() && nm[i] < range.to_nm; ++i) {
    if (segments_[i].gap) continue;
    double from = nm[i] > range.from_nm ? nm[i] : range.from_nm;
    const double end = nm[i + 1] < range.to_nm ? nm[i + 1] : range.to_nm;
    while (from < end) {
      double to = end;
      if (grid_nm > 0) {
        const double next = (static_cast<double>(static_cast<long>(from / grid_nm)) + 1) * grid_nm;
        if (next < end) to = next;
      }
      for (int k = 0; k < 4; ++k) visit(from + place[k] * (to - from), share[k] * (to - from));
      from = to;
    }
  }
}

}  // namespace sunbreak
