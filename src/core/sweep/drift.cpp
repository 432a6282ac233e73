#include "core/sweep/drift.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {
namespace {
constexpr double deviations = 3, least_noise = 0.003;
}

Drift::Drift(std::vector<ReferencePoint> points) : points_(std::move(points)) {
  std::erase_if(points_, [](const ReferencePoint& p) { return !(p.value > 0) || !std::isfinite(p.time_s); });
  std::stable_sort(points_.begin(), points_.end(), [](auto& a, auto& b) { return a.time_s < b.time_s; });
  const auto noise = [](const ReferencePoint& p) { return std::max(p.noise, least_noise); };
  for (const ReferencePoint& p : points_)
    significant_ = significant_ || std::abs(p.value / points_.front().value - 1) >
                                       deviations * std::hypot(noise(p), noise(points_.front()));
}

double Drift::factor(double time_s) const {
  if (!significant_ || !std::isfinite(time_s)) return 1;
  const auto after = std::find_if(points_.begin(), points_.end(), [&](auto& p) { return p.time_s >= time_s; });
  double there = after == points_.end() ? points_.back().value : after->value;
  if (after != points_.begin() && after != points_.end()) {
    const ReferencePoint& before = *(after - 1);
    const double span = after->time_s - before.time_s;
    if (span > 0) there = before.value + (after->value - before.value) * (time_s - before.time_s) / span;
  }
  return points_.front().value / there;
}

double Drift::largest_change() const {
  double largest = 0;
  if (!exists()) return largest;
  for (const ReferencePoint& p : points_)
    if (const double change = p.value / points_.front().value - 1; std::abs(change) > std::abs(largest))
      largest = change;
  return largest;
}

double Drift::change() const { return exists() ? points_.back().value / points_.front().value - 1 : 0; }

}  // namespace sunbreak
