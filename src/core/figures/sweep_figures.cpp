#include "core/figures/sweep_figures.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "core/figures/statistics.h"
#include "core/quantity/daily_light.h"

namespace sunbreak {

namespace {

/// What each station weighs in the mean.
std::vector<double> mean_weights(const Layout& layout, std::span<const double> ppfd) {
  const bool plain = layout.nine_point && std::any_of(ppfd.begin(), ppfd.end(), [](double e) { return std::isnan(e); });
  std::vector<double> weights;
  weights.reserve(ppfd.size());
  for (const Station& s : layout.stations) weights.push_back(plain ? 1 : s.weight);
  return weights;
}

/// Mean of the four corner stations of a lattice; NaN where there are none, or one is unread.
double corner_ppfd(const Layout& layout, std::span<const double> ppfd) {
  if (!layout.is_lattice()) return std::numeric_limits<double>::quiet_NaN();
  double sum = 0;
  for (const int column : {0, layout.columns - 1})
    for (const int row : {0, layout.rows - 1}) sum += ppfd[static_cast<std::size_t>(layout.index(column, row))];
  return sum / 4;
}

}  // namespace

double read_share(const Layout& layout, std::span<const double> ppfd) {
  double share = 0;
  bool all = true;
  for (std::size_t i = 0; i < ppfd.size(); ++i)
    if (std::isnan(ppfd[i]))
      all = false;
    else
      share += layout.stations[i].weight;
  return all ? 1 : share;
}

std::string read_words(int read, int stations) { return fmt::format("{} of {} stations read", read, stations); }

double area_mean(const Layout& layout, std::span<const double> ppfd) {
  return weighted_mean(ppfd, mean_weights(layout, ppfd));
}

std::optional<SweepFigures> spread_figures(const Layout& layout, std::span<const double> ppfd) {
  SweepFigures f;
  const std::vector<double> weights = mean_weights(layout, ppfd);
  std::vector<double> read;
  read.reserve(ppfd.size());
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    if (std::isnan(ppfd[i])) continue;
    read.push_back(ppfd[i]);
    if (f.lowest.station < 0 || ppfd[i] < f.lowest.ppfd) f.lowest = {ppfd[i], static_cast<int>(i)};
    if (f.highest.station < 0 || ppfd[i] > f.highest.ppfd) f.highest = {ppfd[i], static_cast<int>(i)};
  }
  if (read.empty()) return {};

  f.stations = static_cast<int>(ppfd.size());
  f.missing = f.stations - static_cast<int>(read.size());
  f.read_share = read_share(layout, ppfd);
  f.area_m2 = layout.measured.area_m2();
  f.mean_ppfd = weighted_mean(ppfd, weights);
  const auto ranked = percentiles(read, std::array{5.0, 50.0, 95.0});
  f.p5_ppfd = ranked[0];
  f.median_ppfd = ranked[1];
  f.p95_ppfd = ranked[2];
  f.sd_ppfd = weighted_sd(ppfd, weights);
  f.cv = f.sd_ppfd / f.mean_ppfd;
  f.evenness = evenness(f.lowest.ppfd, f.highest.ppfd, f.mean_ppfd, f.p5_ppfd);
  f.center_ppfd = center_ppfd(layout, ppfd);
  f.edge_ppfd = edge_ppfd(layout, ppfd);
  f.corner_ppfd = corner_ppfd(layout, ppfd);
  return f;
}

std::optional<SweepFigures> sweep_figures(const Layout& layout, std::span<const double> ppfd,
                                          const FigureContext& context) {
  std::optional<SweepFigures> spread = spread_figures(layout, ppfd);
  if (!spread) return {};
  SweepFigures f = *std::move(spread);
  f.ppf_umol_s = f.mean_ppfd * f.area_m2;
  f.power_w = context.power_w;
  if (context.power_w && *context.power_w > 0) f.efficacy = efficacy(f.mean_ppfd, f.area_m2, *context.power_w);
  f.rings = rings(layout, ppfd);
  f.balance = balance(layout, ppfd);
  f.photoperiod_h = context.photoperiod_h;
  f.dli_mean_mol_m2_d = dli_mol_m2_d(f.mean_ppfd, context.photoperiod_h);

  const Field field(layout, ppfd);
  if (context.target && field.exists()) f.coverage = coverage(field.raster(), *context.target);
  if (!context.nominal_sizes.empty())
    f.nominal = nominal_footprints(layout, ppfd, context.nominal_sizes, context.target, context.rule);
  return f;
}

}  // namespace sunbreak
