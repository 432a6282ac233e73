#include "core/claims/claimed_map.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/figures/sweep_figures.h"

namespace sunbreak {
namespace {

double lowest_over(const std::vector<double>& ppfd, double mean) {
  return *std::min_element(ppfd.begin(), ppfd.end()) / mean;
}

}  // namespace

Result<Layout> claimed_layout(const ClaimedMap& map) {
  if (map.ppfd.size() != static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows))
    return Problem{fmt::format("{} values for a map of {} × {}", map.ppfd.size(), map.columns, map.rows),
                   "no one knows which place they belong to", "paste the whole map"};
  return lay_out(map.area, Grid{map.grid, map.columns, map.rows, 0, 0, {}});
}

HeldMap held_map(const ClaimedMap& map, Layout layout, std::vector<double> ours) {
  HeldMap held;
  held.claimed = map.ppfd, held.ours = std::move(ours), held.layout = std::move(layout);
  held.claimed_mean = area_mean(held.layout, held.claimed), held.our_mean = area_mean(held.layout, held.ours);
  held.mean_ratio = held.our_mean / held.claimed_mean;
  held.claimed_lowest_over_mean = lowest_over(held.claimed, held.claimed_mean);
  held.our_lowest_over_mean = lowest_over(held.ours, held.our_mean);
  double squares = 0, weights = 0;
  for (std::size_t i = 0; i < held.claimed.size(); ++i) {
    const double ratio = held.claimed[i] > 0 ? held.ours[i] / held.claimed[i] : unread;
    held.ratio.push_back(ratio);
    if (std::isnan(ratio)) continue;
    const double off = ratio / held.mean_ratio - 1, weight = held.layout.stations[i].weight;
    squares += weight * off * off, weights += weight;
  }
  held.pattern_spread = weights > 0 ? std::sqrt(squares / weights) : unread;
  return held;
}

std::pair<double, double> HeldMap::light_range() const {
  return std::minmax({*std::ranges::min_element(claimed), *std::ranges::max_element(claimed),
                      *std::ranges::min_element(ours), *std::ranges::max_element(ours)});
}

std::optional<OutsideOfMap> outside_of_map(const Layout& floor, const std::vector<double>& ppfd,
                                           const Footprint& area) {
  const double x = floor.measured.left_m + floor.measured.width_m / 2,
               y = floor.measured.front_m + floor.measured.depth_m / 2;
  double inside = 0, outside = 0;
  int within = 0, beyond = 0;
  for (std::size_t i = 0; i < floor.stations.size(); ++i) {
    if (std::isnan(ppfd[i])) continue;
    const Station& s = floor.stations[i];
    if (std::abs(s.x_m - x) <= area.width_m / 2 && std::abs(s.y_m - y) <= area.depth_m / 2)
      inside += ppfd[i], ++within;
    else
      outside += ppfd[i], ++beyond;
  }
  if (within == 0 || beyond == 0) return {};
  return OutsideOfMap{inside / within, outside / beyond, static_cast<double>(beyond) / (within + beyond)};
}

}  // namespace sunbreak
