#include "core/settle/settle_maps.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/bench/edge_shape.h"
#include "core/settle/settle_kernel.h"

namespace sunbreak {
namespace {

double mean_of(std::span<const double> values) {
  return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

/// The walked patterns that a setting lies between, as first + other_share · second, times part.
struct Between {
  const SettlePattern *first, *second;
  double part, other_share;
  double of(double SettlePattern::*figure) const { return part * (first->*figure + other_share * second->*figure); }
};

Between between(const SettleHeight& height, const SettleSetting& setting) {
  const auto at = [&](int k) { return &height.patterns[static_cast<std::size_t>(k)]; };
  if (setting.upper_share <= 0) return {at(setting.lower), at(setting.lower), 1, 0};
  if (setting.upper_share >= 1) return {at(setting.upper), at(setting.upper), 1, 0};
  return {at(setting.lower), at(setting.upper), 1 - setting.upper_share,
          setting.upper_share / (1 - setting.upper_share)};
}

Counted count_in(const std::vector<float>& sorted, float low, float high) {
  return {static_cast<int>(sorted.end() - std::lower_bound(sorted.begin(), sorted.end(), low)),
          static_cast<int>(sorted.end() - std::upper_bound(sorted.begin(), sorted.end(), high))};
}

}  // namespace

double radial_shape(const SettleLattice& lattice, const Vec3& place) {
  return edge_shape(lattice.area, place.x, place.y);
}

SettleHeight settle_height(const SettleLattice& lattice, double height_m, std::vector<std::vector<double>> light,
                           const SettleErrors& errors) {
  SettleHeight height{height_m, lattice.cells, false, {}, errors};
  for (const std::vector<double>& places : light) {
    SettlePattern& p = height.patterns.emplace_back();
    const std::span<const double> all(places);
    const std::size_t lit = lattice.cells + lattice.edge;
    p.lit.assign(places.begin(), places.begin() + static_cast<std::ptrdiff_t>(lit));
    p.sorted.assign(p.lit.begin(), p.lit.begin() + static_cast<std::ptrdiff_t>(lattice.cells));
    std::sort(p.sorted.begin(), p.sorted.end());
    p.mean = mean_of(all.first(lattice.cells));
    const auto edge = lattice.edge_of(all);
    p.edge = mean_of(edge);
    p.center = mean_of(lattice.center_of(all));
    p.corners = mean_of(lattice.corners_of(all));
    std::size_t lowest = 0, highest = 0;
    for (std::size_t i = 0; i < lit; ++i) {
      if (places[i] < places[lowest]) lowest = i;
      if (places[i] > places[highest]) highest = i;
    }
    p.lowest = places[lowest], p.highest = places[highest];
    p.lowest_radial = radial_shape(lattice, lattice.places[lowest]);
    p.highest_radial = radial_shape(lattice, lattice.places[highest]);
    for (std::size_t i = 0; i < lattice.cells; ++i)
      p.radial.push_back(static_cast<float>(places[i] * radial_shape(lattice, lattice.places[i])));
    for (std::size_t i = 0; i < edge.size(); ++i)
      p.edge_radial += edge[i] * radial_shape(lattice, lattice.places[lattice.cells + i]);
    p.edge_radial /= static_cast<double>(edge.size()) * p.edge;
  }
  return height;
}

SettleFigures settle_figures(const SettleHeight& height, const SettleSetting& setting, const Band& band) {
  const Between b = between(height, setting);
  const double light = setting.light_factor;
  SettleFigures f;
  f.mean = light * b.of(&SettlePattern::mean);
  f.edge = light * b.of(&SettlePattern::edge);
  f.center = light * b.of(&SettlePattern::center);
  f.corners = light * b.of(&SettlePattern::corners);
  const double unit = light * b.part;
  const auto low = static_cast<float>(band.low / unit), high = static_cast<float>(band.high / unit);
  Counted counted;
  if (b.other_share == 0) {
    f.lowest = light * b.first->lowest, f.highest = light * b.first->highest;
    counted = count_in(b.first->sorted, low, high);
  } else {
    const auto share = static_cast<float>(b.other_share);
    const Extremes e = extremes_of_sum(b.first->lit.data(), b.second->lit.data(), share, b.first->lit.size());
    f.lowest = unit * e.lowest, f.highest = unit * e.highest;
    counted = count_in_sum(b.first->lit.data(), b.second->lit.data(), share, height.cells, low, high);
  }
  const auto all = static_cast<double>(height.cells);
  f.too_bright = counted.above_high / all;
  f.in_band = (counted.at_least_low - counted.above_high) / all;
  f.too_dim = 1 - counted.at_least_low / all;
  return f;
}

std::vector<double> settle_cells_ppfd(const SettleHeight& height, const SettleSetting& setting) {
  const Between b = between(height, setting);
  std::vector<double> ppfd;
  for (std::size_t i = 0; i < height.cells; ++i)
    ppfd.push_back(setting.light_factor * b.part *
                   (static_cast<double>(b.first->lit[i]) + b.other_share * static_cast<double>(b.second->lit[i])));
  return ppfd;
}

}  // namespace sunbreak
