#pragma once

#include <cstddef>
#include <map>
#include <vector>

#include "core/whole_light/whole_light.h"

namespace sunbreak {

/// Deviations of a sweep's stations from its fit: ln(read / fitted); NaN where unknown.
using Residuals = std::vector<double>;

/// What repeats of the stations' residuals, between the heights that they were found at.
class ResidualPattern {
 public:
  /// Of the sweeps with so many stations: others lie on another grid. Without those at a height that is left out, if
  /// any.
  ResidualPattern(const WholeLightQuestion& question, std::vector<Residuals> residuals, std::size_t stations,
                  double left_out_m);

  /// The factor of a station at a height, for one measured setting; 1 where nothing is known of it.
  double at(int setting, double height_m, std::size_t station) const;

 private:
  double known(std::size_t sweep, std::size_t station) const;
  double repeating_share(double noise) const;

  std::vector<Residuals> residuals_;
  std::map<int, std::map<double, std::size_t>> by_setting_;  ///< sweeps by setting and height
  double repeats_ = 0;
};

}  // namespace sunbreak
