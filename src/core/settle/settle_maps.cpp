#include "core/settle/settle_maps.h"

#include <algorithm>
#include <cmath>

#include "core/bench/edge_shape.h"
#include "core/figures/sweep_figures.h"
#include "core/settle/settle_kernel.h"

namespace sunbreak {
namespace {

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
  return edge_shape(lattice.area, place.x, place.y) / lattice.edge_shape_at_edge;
}

namespace {

std::vector<float> sorted_samples(const RasterPlan& raster, std::span<const double> ppfd) {
  const std::vector<double> samples = samples_of(raster, ppfd);
  std::vector<float> sorted(samples.begin(), samples.end());
  std::sort(sorted.begin(), sorted.end());
  return sorted;
}

SettlePattern pattern_of(const SettleLattice& lattice, std::vector<double> ppfd) {
  SettlePattern p;
  const AreaLight light = lattice.plan.light(ppfd);
  p.mean = light.mean, p.edge = light.edge, p.center = light.center, p.corners = light.corners;
  p.lowest = light.lowest, p.highest = light.highest;
  for (const int s : lattice.plan.stations()) {
    const auto at = static_cast<std::size_t>(s);
    p.stations.push_back(static_cast<float>(ppfd[at]));
    if (ppfd[at] == p.lowest) p.lowest_radial = radial_shape(lattice, lattice.places[at]);
    if (ppfd[at] == p.highest) p.highest_radial = radial_shape(lattice, lattice.places[at]);
  }
  p.sorted = sorted_samples(lattice.shares, ppfd);
  const std::vector<double> cells = samples_of(lattice.cells, ppfd);
  p.lit.assign(cells.begin(), cells.end());
  for (std::size_t i = 0; i < cells.size(); ++i)
    p.radial.push_back(static_cast<float>(cells[i] * radial_shape(lattice, lattice.cell(i))));
  std::vector<double> radial(ppfd);
  for (std::size_t i = 0; i < radial.size(); ++i) radial[i] *= radial_shape(lattice, lattice.places[i]);
  p.edge_radial = lattice.plan.edge(radial) / p.edge;
  p.ppfd = std::move(ppfd);
  return p;
}

bool stations_asked(const Layout& a, const Layout& b) { return a.xs_m == b.xs_m && a.ys_m == b.ys_m; }

/// What was read at the very places that are asked for stands in place of what is predicted there.
void take_readings(const SettleLattice& lattice, const WalkedLight& walked, std::vector<double>& ppfd) {
  if (!stations_asked(lattice.asked, walked.layout)) return;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (!std::isnan(walked.ppfd[i])) ppfd[i] = walked.ppfd[i];
}

/// The figures of a walked sweep, as they are shown wherever it is.
void take_figures(const SettleLattice& lattice, const WalkedLight& walked, SettlePattern& p) {
  const AreaPlan plan(walked.layout, lattice.area);
  const bool whole = lattice.area == walked.layout.measured;
  const auto take = [](double& figure, double read) {
    if (!std::isnan(read)) figure = read;
  };
  if (plan.exists()) {
    take(p.mean, plan.mean(walked.ppfd));
    take(p.edge, plan.edge(walked.ppfd));
    take(p.corners, plan.corners(walked.ppfd));
    take(p.lowest, plan.lowest(walked.ppfd));
    take(p.highest, plan.highest(walked.ppfd));
    take(p.center, plan.center(walked.ppfd));
    std::vector<double> samples = samples_of(RasterPlan(walked.layout, lattice.area, raster_step_m), walked.ppfd);
    if (std::ranges::none_of(samples, [](double e) { return std::isnan(e); }))
      p.sorted.assign(samples.begin(), samples.end()), std::sort(p.sorted.begin(), p.sorted.end());
  }
  if (!whole) return;
  if (const auto f = spread_figures(walked.layout, walked.ppfd)) {
    p.mean = f->mean_ppfd, p.lowest = f->lowest.ppfd, p.highest = f->highest.ppfd;
    take(p.center, f->center_ppfd);
  }
}

}  // namespace

SettleHeight settle_height(const SettleLattice& lattice, double height_m, std::vector<std::vector<double>> light,
                           const SettleErrors& errors, std::span<const WalkedLight> walked) {
  constexpr double same_height_m = 1e-6;
  SettleHeight height{height_m, false, {}, errors};
  for (std::size_t k = 0; k < light.size(); ++k) {
    const WalkedLight* here = nullptr;
    for (const WalkedLight& w : walked)
      if (w.pattern == static_cast<int>(k) && std::abs(w.height_m - height_m) < same_height_m &&
          read_share(w.layout, w.ppfd) >= least_read)
        here = &w;
    if (here) take_readings(lattice, *here, light[k]);
    SettlePattern pattern = pattern_of(lattice, std::move(light[k]));
    if (here) take_figures(lattice, *here, pattern);
    height.patterns.push_back(std::move(pattern));
  }
  return height;
}

AreaLight settle_figures(const SettleHeight& height, const SettleSetting& setting, const Band& band) {
  const Between b = between(height, setting);
  const double light = setting.light_factor;
  AreaLight f;
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
    const Extremes e =
        extremes_of_sum(b.first->stations.data(), b.second->stations.data(), share, b.first->stations.size());
    f.lowest = unit * e.lowest, f.highest = unit * e.highest;
    counted = count_in_sum(b.first->lit.data(), b.second->lit.data(), share, b.first->lit.size(), low, high);
  }
  const auto all = static_cast<double>(b.other_share == 0 ? b.first->sorted.size() : b.first->lit.size());
  f.too_bright = counted.above_high / all;
  f.in_band = (counted.at_least_low - counted.above_high) / all;
  f.too_dim = 1 - counted.at_least_low / all;
  return f;
}

std::vector<double> settle_cells_ppfd(const SettleHeight& height, const SettleSetting& setting) {
  const Between b = between(height, setting);
  std::vector<double> ppfd;
  for (std::size_t i = 0; i < b.first->lit.size(); ++i)
    ppfd.push_back(setting.light_factor * b.part *
                   (static_cast<double>(b.first->lit[i]) + b.other_share * static_cast<double>(b.second->lit[i])));
  return ppfd;
}

std::vector<double> settle_places_ppfd(const SettleHeight& height, const SettleSetting& setting) {
  const Between b = between(height, setting);
  std::vector<double> ppfd;
  for (std::size_t i = 0; i < b.first->ppfd.size(); ++i)
    ppfd.push_back(setting.light_factor * b.part * (b.first->ppfd[i] + b.other_share * b.second->ppfd[i]));
  return ppfd;
}

}  // namespace sunbreak
