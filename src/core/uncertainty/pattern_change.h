#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// Standard uncertainties that two walks over one grid differ by, where their pattern is the same.
struct PatternNoise {
  double reading = 0.01;              ///< relative, of one reading
  double place_m = 0.005;             ///< of a station under the fixture, along each axis
  double height_m = 0.005;            ///< of the fixture over the sensor
  std::vector<double> slope_per_m{};  ///< d ln E / dh, one a station; taken as alike everywhere where empty
};

/// How the pattern of light changed from one walk to another, whatever became of its amount: each station's share of
/// the mean against the one it had.
struct PatternChange {
  std::vector<double> share;  ///< relative change, one a station; NaN where either is not read
  double rms = 0;             ///< of them
  double expected_rms = 0;    ///< what the uncertainties of both walks make of an unchanged pattern
  int farthest = -1;          ///< the station whose change is largest beside its uncertainty; −1: none is read twice
  bool beyond = false;        ///< all together, or one station alone, are beyond what can be expected
};

/// `now` and `before` are corrected PPFD over one layout; each walk is as sure as its noise says. All together: the
/// mean square of change ÷ its standard uncertainty over 2, which shifts and heights that err alike everywhere stay
/// under; one alone: over 5 of them.
PatternChange pattern_change(const Layout& layout, std::span<const double> now, std::span<const double> before,
                             const PatternNoise& noise_now, const PatternNoise& noise_before);

}  // namespace sunbreak
