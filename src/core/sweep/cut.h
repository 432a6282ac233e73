#pragma once

#include <vector>

#include "core/sweep/isolines.h"

namespace sunbreak {

struct CutPoint {
  double along_m = 0;  ///< from the cut's beginning
  Place place;
  double ppfd = 0;  ///< NaN where the field is unknown
};

/// The field along a straight line.
struct Cut {
  Place from, to;
  double length_m = 0;
  std::vector<CutPoint> points;  ///< from end to end, with every crossing of a line of stations among them
  double mean_ppfd = 0;          ///< along the known part; NaN where nothing is known
  double known_share = 0;        ///< of the length
  CutPoint lowest, highest;      ///< among the points
};

/// Cuts the field from one place to another, with a point at least every `step_m`. What lies outside the measured area
/// is cut off first; nothing is left where the line misses it. The mean is exact: along a line the bilinear field is a
/// parabola between lines of stations, and Simpson's rule is exact for those.
Cut cut(const Field& field, Place from, Place to, double step_m = 0.01);

}  // namespace sunbreak
