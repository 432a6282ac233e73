#include "core/figures/area_curve.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace sunbreak {
namespace {
constexpr int slots = 1024;
}

int AreaCurve::slot(double ppfd) const {
  return static_cast<int>(std::clamp((ppfd - lowest_) * slots_per_ppfd_, 0.0, slots - 1.0));
}

AreaCurve::AreaCurve(const Raster& raster) : first_(slots + 1, 0) {
  if (!raster.ppfd.empty()) sample_area_m2_ = raster.sample_area_m2();
  double highest = -std::numeric_limits<double>::infinity();
  lowest_ = std::numeric_limits<double>::infinity();
  for (const double ppfd : raster.ppfd)
    if (!std::isnan(ppfd)) lowest_ = std::min(lowest_, ppfd), highest = std::max(highest, ppfd);
  if (highest > lowest_) slots_per_ppfd_ = slots / (highest - lowest_);
  if (lowest_ > highest) lowest_ = 0;
  for (const double ppfd : raster.ppfd)
    if (!std::isnan(ppfd)) ++first_[slot(ppfd) + 1];
  std::partial_sum(first_.begin(), first_.end(), first_.begin());
  samples_.resize(first_.back());
  std::vector<int> next(first_.begin(), first_.end() - 1);
  for (const double ppfd : raster.ppfd)
    if (!std::isnan(ppfd)) samples_[next[slot(ppfd)]++] = ppfd;
}

double AreaCurve::area_m2_at_or_above(double ppfd) const {
  const int at = slot(ppfd);
  const auto above = static_cast<int>(samples_.size()) - first_[at + 1];
  const auto within = std::count_if(samples_.begin() + first_[at], samples_.begin() + first_[at + 1],
                                    [&](double s) { return s >= ppfd; });
  return static_cast<double>(above + within) * sample_area_m2_;
}

}  // namespace sunbreak
