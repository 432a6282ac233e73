#include "core/figures/nominal.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace sunbreak {
namespace {

constexpr double fit_slack_m = 0.001;
constexpr double step_m = 0.01;

}  // namespace

bool serves(const Band& band, double share, double edge_mean) {
  return share >= least_in_band && edge_mean >= band.low;
}

double edge_mean_ppfd(const Field& field, const Rectangle& r) {
  double sum = 0, length = 0;
  const auto along = [&](double x0, double y0, double dx, double dy, double side) {
    const int steps = std::max(1, static_cast<int>(std::lround(side / step_m)));
    double line = 0;
    for (int i = 0; i < steps; ++i) line += field.at(x0 + (i + 0.5) / steps * dx, y0 + (i + 0.5) / steps * dy);
    sum += line / steps * side;
    length += side;
  };
  for (const double y : {r.front_m, r.front_m + r.depth_m}) along(r.left_m, y, r.width_m, 0, r.width_m);
  for (const double x : {r.left_m, r.left_m + r.width_m}) along(x, r.front_m, 0, r.depth_m, r.depth_m);
  return sum / length;
}

std::vector<NominalFootprint> nominal_footprints(const Field& field, const Rectangle& measured,
                                                 std::span<const Footprint> sizes, const std::optional<Band>& band) {
  std::vector<NominalFootprint> result;
  if (!field.exists()) return result;
  for (const Footprint& size : sizes) {
    if (size.width_m > measured.width_m + fit_slack_m || size.depth_m > measured.depth_m + fit_slack_m) continue;
    const Rectangle r{measured.left_m + (measured.width_m - size.width_m) / 2,
                      measured.front_m + (measured.depth_m - size.depth_m) / 2, size.width_m, size.depth_m};
    NominalFootprint nominal{size, edge_mean_ppfd(field, r), 0, 0, false};
    const Raster raster = field.raster(r, step_m);
    nominal.inside_mean_ppfd =
        std::accumulate(raster.ppfd.begin(), raster.ppfd.end(), 0.0) / static_cast<double>(raster.ppfd.size());
    if (band) nominal.in_band_share = in_band_share(raster, *band);
    nominal.passes = band && serves(*band, nominal.in_band_share, nominal.edge_mean_ppfd);
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
