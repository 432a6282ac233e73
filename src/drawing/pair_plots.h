#pragma once

#include <optional>
#include <string>
#include <vector>

#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// What two meters showed of the same light, with the line through the origin that brings one to the other.
struct PairLine {
  std::string x_name, y_name;
  std::vector<Point> pairs;  ///< x and y as they were read
  std::optional<double> slope;
};

void draw_pair_line(Canvas& canvas, const Box& room, const PairLine& plot);

/// Differences of two meters over their mean (Bland and Altman).
struct DifferencePlot {
  std::string x_name;
  std::vector<Point> differences;  ///< mean of a pair and its difference in percent
  std::optional<double> mean_pct, low_limit_pct, high_limit_pct;
};

void draw_differences(Canvas& canvas, const Box& room, const DifferencePlot& plot);

/// The ratio of two meters at their stations, seen from above: a square for each, its number in it where there is room.
struct RatioMap {
  struct Station {
    double x_m = 0, y_m = 0, ratio = 1;
  };
  std::vector<Station> stations;
};

void draw_ratio_map(Canvas& canvas, const Box& room, const RatioMap& map);

}  // namespace sunbreak::drawing
