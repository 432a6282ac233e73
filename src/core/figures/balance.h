#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// How the light lies about the middle. Differences are of half-area means, in % of the mean; a positive one says that
/// the second-named side is brighter, in line with the coordinate axes and the centroid. A middle line of stations
/// belongs to neither half.
struct Balance {
  double left_right_pct = 0;                  ///< right less left
  double front_back_pct = 0;                  ///< back less front
  double diagonal_rise_pct = 0;               ///< back-right corner triangle less front-left
  double diagonal_fall_pct = 0;               ///< back-left corner triangle less front-right
  double centroid_x_m = 0, centroid_y_m = 0;  ///< the light's centroid from the middle of the stations read
};

/// Balance of the stations read; NaN where a half has none.
Balance balance(const Layout& layout, std::span<const double> ppfd);

/// The one, two or four stations nearest the middle.
std::vector<int> middle_stations(const Layout& layout);

/// Mean of the 1, 2 or 4 stations nearest the middle of the measured area; NaN where none of them was read.
double center_ppfd(const Layout& layout, std::span<const double> ppfd);

}  // namespace sunbreak
