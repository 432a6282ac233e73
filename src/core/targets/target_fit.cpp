#include "core/targets/target_fit.h"

#include <algorithm>
#include <cmath>

#include "core/figures/nominal.h"

namespace sunbreak {
namespace {
constexpr double alike = 0.005;
}

std::vector<TargetFit> target_fits(const Field& field, std::span<const Band> bands) {
  std::vector<TargetFit> fits;
  if (!field.exists()) return fits;
  const Raster raster = field.raster();
  const double edge = edge_mean_ppfd(field, field.area());
  for (const Band& band : bands) {
    fits.push_back({coverage(raster, band), edge, false});
    fits.back().passes = serves(band, fits.back().coverage.in_band_share, edge);
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
