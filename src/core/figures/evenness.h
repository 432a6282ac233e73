#pragma once

namespace sunbreak {

/// The schools of evenness side by side; none is "the" uniformity. All are pure ratios.
struct Evenness {
  double lowest_over_mean = 0;
  double lowest_over_highest = 0;
  double highest_over_lowest = 0;  ///< infinite where the lowest is 0
  double p5_over_mean = 0;         ///< the 5th percentile in place of the lowest: steadier on dense grids
  double p5_over_highest = 0;
  double highest_over_p5 = 0;
};

/// Ratios of the given PPFD figures, which are of one sweep and in one unit.
constexpr Evenness evenness(double lowest, double highest, double mean, double p5) {
  return {lowest / mean, lowest / highest, highest / lowest, p5 / mean, p5 / highest, highest / p5};
}

}  // namespace sunbreak
