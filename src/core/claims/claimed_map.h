#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "core/bench/grid.h"
#include "core/figures/evenness.h"
#include "core/result.h"

namespace sunbreak {

/// A map as a maker shows it: PPFD over an area, front row first.
struct ClaimedMap {
  Footprint area;
  GridKind grid = GridKind::Cells;  ///< or Nodes
  int columns = 0, rows = 0;
  std::vector<double> ppfd;
};

/// A maker's map held against the light at its very places.
struct HeldMap {
  Layout layout;                          ///< of the map's places within its area
  std::vector<double> claimed, ours;      ///< one a place
  std::vector<double> ratio;              ///< ours ÷ claimed, NaN where nothing is claimed
  double claimed_mean = 0, our_mean = 0;  ///< area-weighted
  double mean_ratio = 0;                  ///< of the means
  double claimed_lowest_over_mean = 0, our_lowest_over_mean = 0;
  double pattern_spread =
      0;  ///< standard deviation of the ratios about the ratio of means, relative: how alike they are

  /// The least and the most light in either.
  std::pair<double, double> light_range() const;
};

/// The places of a map on its area; refuses what is no map.
Result<Layout> claimed_layout(const ClaimedMap& map);

/// `ours` is the light at claimed_layout()'s stations.
HeldMap held_map(const ClaimedMap& map, Layout layout, std::vector<double> ours);

/// What lies outside of the area shown: its mean beside the mean within, both on the floor of the bench.
struct OutsideOfMap {
  double inside_mean_ppfd = 0, outside_mean_ppfd = 0;
  double outside_share = 0;  ///< of the floor's area
};
/// From the light at the cells of a floor, equal ones, and the area about its middle; nothing where no cell lies
/// outside.
std::optional<OutsideOfMap> outside_of_map(const Layout& floor, const std::vector<double>& ppfd, const Footprint& area);

}  // namespace sunbreak
