#pragma once

#include <cstddef>
#include <optional>
#include <vector>

#include "core/power/monotone_cubic.h"
#include "core/whole_light/whole_light.h"

namespace sunbreak {

/// One station's ln E over the heights it was read at.
class StationCurve {
 public:
  /// `log_ppfd` at each of the heights, lowest first.
  StationCurve(std::vector<double> heights_m, std::vector<double> log_ppfd);
  /// PPFD; NaN where the station was not read at enough heights.
  double at(double height_m) const;

 private:
  std::vector<double> heights_m_, logs_;
  std::optional<MonotoneCubic> between_;
};

/// ln E by station over the heights of one setting, monotone between them and straight beyond.
class CubicLight {
 public:
  /// Of the sweeps with as many stations as the first; without those at a height that is left out, if any (NaN).
  CubicLight(const WholeLightQuestion& question, int setting, double left_out_m);

  std::size_t count() const { return heights_m_.size(); }
  bool between(double height_m) const {
    return count() >= 2 && height_m >= heights_m_.front() && height_m <= heights_m_.back();
  }
  StationCurve of(std::size_t station) const;

 private:
  std::vector<double> heights_m_;
  std::vector<const std::vector<double>*> sweeps_;
};

}  // namespace sunbreak
