#include "core/figures/area_curve.h"

#include <algorithm>
#include <cmath>

namespace sunbreak {

AreaCurve::AreaCurve(const Raster& raster) : ascending_(raster.ppfd) {
  std::erase_if(ascending_, [](double ppfd) { return std::isnan(ppfd); });
  std::sort(ascending_.begin(), ascending_.end());
  if (!raster.ppfd.empty()) sample_area_m2_ = raster.sample_area_m2();
}

double AreaCurve::area_m2_at_or_above(double ppfd) const {
  const auto from = std::lower_bound(ascending_.begin(), ascending_.end(), ppfd);
  return static_cast<double>(ascending_.end() - from) * sample_area_m2_;
}

}  // namespace sunbreak
