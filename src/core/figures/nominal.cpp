#include "core/figures/nominal.h"

#include <algorithm>

namespace sunbreak {
std::vector<NominalFootprint> nominal_footprints(const Layout& layout, std::span<const double> ppfd,
                                                 std::span<const Footprint> sizes, const std::optional<Band>& band,
                                                 const ServingRule& rule) {
  std::vector<NominalFootprint> result;
  if (!layout.is_lattice()) return result;
  const Rectangle& measured = layout.measured;
  for (const Footprint& size : sizes) {
    if (size.width_m > measured.width_m + fit_slack_m || size.depth_m > measured.depth_m + fit_slack_m) continue;
    const double width = std::min(size.width_m, measured.width_m), depth = std::min(size.depth_m, measured.depth_m);
    const Rectangle r{measured.left_m + (measured.width_m - width) / 2,
                      measured.front_m + (measured.depth_m - depth) / 2, width, depth};
    NominalFootprint nominal{size, AreaPlan(layout, r).light(ppfd), false};
    if (band) {
      add_shares(nominal.light, RasterPlan(layout, r, raster_step_m), ppfd, *band);
      nominal.passes = judged(rule, *band, nominal.light).met();
    }
    result.push_back(nominal);
  }
  return result;
}

std::vector<Footprint> usual_metric_sizes() {
  return {{0.6, 0.6}, {0.8, 0.8}, {0.9, 0.9}, {1.0, 1.0}, {1.2, 1.2}, {0.6, 1.2}, {1.2, 0.6}};
}

std::vector<Footprint> usual_foot_sizes() {
  constexpr double foot_m = 0.3048;
  std::vector<Footprint> sizes;
  for (const auto& [width, depth] : {std::pair{2, 2}, {2, 4}, {4, 2}, {3, 3}, {4, 4}, {5, 5}})
    sizes.push_back({width * foot_m, depth * foot_m});
  return sizes;
}

}  // namespace sunbreak
