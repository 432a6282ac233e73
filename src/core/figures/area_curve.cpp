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
  const double at = (ppfd - lowest_) * slots_per_ppfd_;
  return at > 0 ? static_cast<int>(std::min(at, slots - 1.0)) : 0;  // what is no number is below all
}

AreaCurve::AreaCurve(const Raster& raster) : first_(slots + 1, 0) {
  if (!raster.ppfd.empty()) sample_area_m2_ = raster.sample_area_m2();
  double highest = -std::numeric_limits<double>::infinity();
  lowest_ = std::numeric_limits<double>::infinity();
  for (const double ppfd : raster.ppfd)
    if (std::isfinite(ppfd)) lowest_ = std::min(lowest_, ppfd), highest = std::max(highest, ppfd);
  if (highest > lowest_) slots_per_ppfd_ = slots / (highest - lowest_);
  if (lowest_ > highest) lowest_ = 0;
  for (const double ppfd : raster.ppfd)
    if (std::isfinite(ppfd)) ++first_[slot(ppfd) + 1];
  std::partial_sum(first_.begin(), first_.end(), first_.begin());
  samples_.resize(first_.back());
  std::vector<int> next(first_.begin(), first_.end() - 1);
  for (const double ppfd : raster.ppfd)
    if (std::isfinite(ppfd)) samples_[next[slot(ppfd)]++] = ppfd;
}

double AreaCurve::area_m2_at_or_above(double ppfd) const {
  const int at = slot(ppfd);
  const auto above = static_cast<int>(samples_.size()) - first_[at + 1];
  const auto within = std::count_if(samples_.begin() + first_[at], samples_.begin() + first_[at + 1],
                                    [&](double s) { return s >= ppfd; });
  return static_cast<double>(above + within) * sample_area_m2_;
}

}  // namespace sunbreak
