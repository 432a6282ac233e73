#include "core/whole_light/residual_pattern.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <utility>

namespace sunbreak {

ResidualPattern::ResidualPattern(const WholeLightQuestion& question, std::vector<Residuals> residuals,
                                 std::size_t stations, double left_out_m)
    : residuals_(std::move(residuals)) {
  for (std::size_t s = 0; s < question.sweeps.size(); ++s)
    if (question.sweeps[s].height_m != left_out_m && question.sweeps[s].ppfd.size() == stations)
      by_setting_[question.sweeps[s].setting][question.sweeps[s].height_m] = s;
  repeats_ = repeating_share(question.noise);
}

double ResidualPattern::at(int setting, double height_m, std::size_t station) const {
  const auto found = by_setting_.find(setting);
  if (found == by_setting_.end()) return 1;
  const auto& heights = found->second;
  auto above = heights.lower_bound(height_m);
  if (above == heights.end()) --above;
  auto below = above;
  if (above->first > height_m && above != heights.begin()) --below;
  const double span = above->first - below->first, share = span > 0 ? (height_m - below->first) / span : 0;
  const double low = known(below->second, station), high = known(above->second, station);
  return std::exp(repeats_ * ((1 - share) * low + share * high));
}

double ResidualPattern::known(std::size_t sweep, std::size_t station) const {
  if (station >= residuals_[sweep].size() || std::isnan(residuals_[sweep][station])) return 0;
  return residuals_[sweep][station];
}

/// The share of the residuals' variance that neighboring heights have in common: the rest is noise, and is not
/// carried to other heights. From one height: what is beyond the readings' noise.
double ResidualPattern::repeating_share(double noise) const {
  double common = 0, all = 0, squares = 0, count = 0;
  for (const auto& [setting, heights] : by_setting_)
    for (auto at = heights.begin(); at != heights.end(); ++at) {
      for (const double r : residuals_[at->second])
        if (!std::isnan(r)) squares += r * r, count += 1;
      const auto next = std::next(at);
      if (next == heights.end() || residuals_[next->second].size() != residuals_[at->second].size()) continue;
      for (std::size_t i = 0; i < residuals_[at->second].size(); ++i) {
        const double a = residuals_[at->second][i], b = residuals_[next->second][i];
        if (!std::isnan(a) && !std::isnan(b)) common += a * b, all += (a * a + b * b) / 2;
      }
    }
  if (all > 0) return std::clamp(common / all, 0.0, 1.0);
  return count > 0 && squares > 0 ? std::clamp(1 - noise * noise * count / squares, 0.0, 1.0) : 0;
}

}  // namespace sunbreak
