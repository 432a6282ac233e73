#pragma once

#include <cstddef>
#include <vector>

#include "core/whole_light/whole_light.h"

namespace sunbreak {

/// ln E by station over the heights of one setting, monotone between them and straight beyond.
class CubicLight {
 public:
  /// Of the sweeps with as many stations as the first; without those at a height that is left out, if any (NaN).
  CubicLight(const WholeLightQuestion& question, int setting, double left_out_m);

  std::size_t count() const { return heights_m_.size(); }
  bool between(double height_m) const {
    return count() >= 2 && height_m >= heights_m_.front() && height_m <= heights_m_.back();
  }
  /// PPFD of a station; NaN where it was not read, or not at enough heights.
  double at(std::size_t station, double height_m) const;

 private:
  std::vector<double> heights_m_;
  std::vector<const std::vector<double>*> sweeps_;
};

}  // namespace sunbreak
