#include "core/checks/noise_shares.h"

#include <algorithm>
#include <cmath>

#include "core/checks/reading_views.h"

namespace sunbreak {
namespace {

constexpr int fewest_differences = 5;  ///< degrees of freedom that a pooled spread needs

/// Relative variance of one sensor value, pooled from all spreads; NaN where they are too few.
double variance_of_a_value(std::span<const double> raw, std::span<const SampledReading> sampled) {
  double squares = 0;
  int differences = 0;
  for (std::size_t i = 0; i < sampled.size(); ++i) {
    const SampledReading& s = sampled[i];
    if (s.samples < 2 || !s.spread || !(raw[i] > 0)) continue;
    squares += (s.samples - 1) * std::pow(*s.spread / raw[i], 2);
    differences += s.samples - 1;
  }
  return differences >= fewest_differences ? squares / differences : std::nan("");
}

}  // namespace

std::vector<double> noise_shares(const Layout& layout, std::span<const double> raw, std::span<const double> ppfd,
                                 std::span<const SampledReading> sampled) {
  std::vector<int> counts;
  for (const SampledReading& s : sampled)
    if (s.samples > 0) counts.push_back(s.samples);
  if (counts.empty()) return {};
  const auto middle = counts.begin() + static_cast<std::ptrdiff_t>(counts.size() / 2);
  std::nth_element(counts.begin(), middle, counts.end());
  const int usual = *middle;
  if (std::all_of(counts.begin(), counts.end(), [&](int n) { return n == usual; })) return {};
  const double value = variance_of_a_value(raw, sampled), scatter = reading_noise(layout, ppfd);
  if (!(value > 0) || std::isnan(scatter)) return {};
  const double placing = std::max(scatter * scatter - value / usual, 0.0);
  std::vector<double> shares;
  for (const SampledReading& s : sampled)
    shares.push_back(s.samples > 0 ? (placing + value / s.samples) / (placing + value / usual) : 1);
  return shares;
}

}  // namespace sunbreak
