#pragma once

#include <span>
#include <vector>

#include "core/figures/coverage.h"
#include "core/figures/serving_rule.h"

namespace sunbreak {

/// How a sweep serves one target over the whole measured area.
struct TargetFit {
  Coverage coverage;
  AreaLight light;
  bool passes = false;  ///< the rule is met
};

/// Fits a sweep to several targets by one rule; the field is sampled once for all of them. Empty where there is no
/// field.
std::vector<TargetFit> target_fits(const Layout& layout, std::span<const double> ppfd, std::span<const Band> bands,
                                   const ServingRule& rule);

/// Which of several sweeps serves a target best, as an index: the one with the largest share in band; of those within
/// half a percent of it the one that takes the fewest watts, if those are known, or else the first. −1 where nothing is
/// in band anywhere.
int best_fit(std::span<const TargetFit> fits, std::span<const double> power_w);

}  // namespace sunbreak
