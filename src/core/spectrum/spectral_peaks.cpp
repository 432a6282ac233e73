#include "core/spectrum/spectral_peaks.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace sunbreak {
namespace {

constexpr double least_rise = 0.03, least_rise_over_noise = 4;
constexpr double coarsest_step_nm = 10;
constexpr double no_width = std::numeric_limits<double>::quiet_NaN();

/// Where the curve between `high_nm` and `low_nm` falls through `level`, by halving; NaN where it does not get there.
double crossing(const SpectralCurve& curve, double high_nm, double low_nm, double level) {
  if (!(curve.photons(low_nm) < level)) return no_width;
  for (int i = 0; i < 50; ++i) {
    const double middle = (high_nm + low_nm) / 2;
    (curve.photons(middle) > level ? high_nm : low_nm) = middle;
  }
  return (high_nm + low_nm) / 2;
}

/// The highest place near a sample, between its neighbors.
double top_near(const SpectralCurve& curve, double from_nm, double to_nm) {
  constexpr double golden = 0.6180339887498949;
  for (int i = 0; i < 40; ++i) {
    const double a = to_nm - golden * (to_nm - from_nm), b = from_nm + golden * (to_nm - from_nm);
    (curve.photons(a) > curve.photons(b) ? to_nm : from_nm) = curve.photons(a) > curve.photons(b) ? b : a;
  }
  return (from_nm + to_nm) / 2;
}

}  // namespace

double sample_noise(const SpectralCurve& curve) {
  const auto& nm = curve.spectrum().wavelengths_nm;
  std::vector<double> bends;
  for (std::size_t i = 1; i + 1 < nm.size(); ++i)
    bends.push_back(std::fabs(curve.photons(nm[i]) - (curve.photons(nm[i - 1]) + curve.photons(nm[i + 1])) / 2));
  if (bends.empty()) return 0;
  const auto middle = bends.begin() + static_cast<std::ptrdiff_t>(bends.size() / 2);
  std::nth_element(bends.begin(), middle, bends.end());
  return *middle / 0.6745 / std::sqrt(1.5);
}

std::vector<SpectralPeak> spectral_peaks(const SpectralCurve& curve) {
  std::vector<SpectralPeak> peaks;
  if (curve.usual_step_nm() > coarsest_step_nm) return peaks;
  const auto& nm = curve.spectrum().wavelengths_nm;
  const std::size_t n = nm.size();
  std::vector<double> light(n);
  for (std::size_t i = 0; i < n; ++i) light[i] = curve.photons(nm[i]);
  const double highest = *std::max_element(light.begin(), light.end());
  const double rise = std::max(least_rise * highest, least_rise_over_noise * sample_noise(curve));
  // From the left: a top is one once the light has fallen by `rise` after it; then the lowest place is looked for until
  // it has risen by as much.
  std::vector<std::size_t> tops, dips{0};
  std::size_t best = 0;
  bool rising = true;
  for (std::size_t i = 1; i < n; ++i) {
    if (rising ? light[i] > light[best] : light[i] < light[best]) best = i;
    if (rising && light[i] < light[best] - rise) {
      // What is highest at the very first sample is an edge of the range, not a peak.
      if (best > 0)
        tops.push_back(best);
      else
        dips.back() = i;
      best = i;
      rising = false;
    } else if (!rising && light[i] > light[best] + rise) {
      if (tops.empty())
        dips.back() = best;
      else
        dips.push_back(best);
      best = i;
      rising = true;
    }
  }
  if (dips.size() == tops.size()) dips.push_back(rising ? n - 1 : best);
  const double all = curve.photon_integral(curve.range());
  for (std::size_t k = 0; k < tops.size(); ++k) {
    const std::size_t top = tops[k];
    // A gap beside it hides where the top is.
    if (std::isnan(curve.photons((nm[top - 1] + nm[top]) / 2)) ||
        std::isnan(curve.photons((nm[top] + nm[top + 1]) / 2)))
      continue;
    const double place = top_near(curve, nm[top - 1], nm[top + 1]);
    const double height = curve.photons(place);
    const auto half_width = [&](bool left) {
      const std::size_t dip = left ? dips[k] : dips[k + 1];
      std::size_t i = top;
      while (i != dip && !(light[i] < height / 2)) left ? --i : ++i;
      const std::size_t inner = left ? i + 1 : i - 1;
      if (!(light[i] < height / 2) || std::isnan(curve.photons((nm[i] + nm[inner]) / 2))) return no_width;
      const double high = inner == top ? place : nm[inner];
      return std::fabs(place - crossing(curve, high, nm[i], height / 2));
    };
    const double below = half_width(true), above = half_width(false);
    const double width = std::isnan(below) ? 2 * above : std::isnan(above) ? 2 * below : below + above;
    const double share = curve.photon_integral({nm[dips[k]], nm[dips[k + 1]]}) / all;
    peaks.push_back({place, width, share, height / highest});
  }
  return peaks;
}

}  // namespace sunbreak
