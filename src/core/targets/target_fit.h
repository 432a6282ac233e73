#pragma once

#include <span>
#include <vector>

#include "core/figures/coverage.h"
#include "core/sweep/field.h"

namespace sunbreak {

/// How a sweep serves one target over the whole measured area.
struct TargetFit {
  Coverage coverage;
  double edge_mean_ppfd = 0;  ///< along the edge of the measured area
  bool passes = false;        ///< serves() says so
};

/// Fits a sweep to several targets; the field is sampled once for all of them. Empty where there is no field.
std::vector<TargetFit> target_fits(const Field& field, std::span<const Band> bands);

/// Which of several sweeps serves a target best, as an index: the one with the largest share in band; of those within
/// half a percent of it the one that takes the fewest watts, if those are known, or else the first. −1 where nothing is
/// in band anywhere.
int best_fit(std::span<const TargetFit> fits, std::span<const double> power_w);

}  // namespace sunbreak
