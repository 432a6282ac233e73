#include "core/targets/target_fit.h"

#include <algorithm>
#include <cmath>

#include "core/figures/sweep_figures.h"

namespace sunbreak {
namespace {
constexpr double alike = 0.005;
}

std::vector<TargetFit> target_fits(const Layout& layout, std::span<const double> ppfd, std::span<const Band> bands,
                                   const ServingRule& rule) {
  std::vector<TargetFit> fits;
  if (!layout.is_lattice()) return fits;
  const Raster raster = Field(layout, ppfd).raster();
  AreaLight light = AreaPlan(layout, layout.measured).light(ppfd);
  light.mean = area_mean(layout, ppfd);
  for (const Band& band : bands) {
    TargetFit& fit = fits.emplace_back(TargetFit{coverage(raster, band), light, false});
    fit.light.in_band = fit.coverage.in_band_share;
    fit.light.too_dim = fit.coverage.too_dim_share, fit.light.too_bright = fit.coverage.too_bright_share;
    fit.passes = judged(rule, band, fit.light).met();
  }
  return fits;
}

int best_fit(std::span<const TargetFit> fits, std::span<const double> power_w) {
  double most = 0;
  for (const TargetFit& f : fits) most = std::max(most, f.coverage.in_band_share);
  int best = -1;
  for (int i = 0; i < std::ssize(fits) && most > 0; ++i) {
    if (fits[i].coverage.in_band_share < most - alike) continue;
    if (best < 0 || power_w[i] < power_w[best]) best = i;
  }
  return best;
}

}  // namespace sunbreak
