#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/checks/finding.h"
#include "core/quantity/display.h"

namespace sunbreak {

/// One finished sweep of a test, as its neighbors see it.
struct SweepSummary {
  double height_m = 0;
  double dimmer_pct = 100;
  double mean_ppfd = 0, center_ppfd = 0;
  std::optional<double> power_w;
};

/// A check about one of the sweeps, by its place in the list.
struct SweepCheck {
  std::size_t sweep = 0;
  Finding check;
};

/// What cannot be between the sweeps of one fixture on one bench: the mean rising with height (over 1.5 %), the light
/// on the axis falling faster than the inverse square of the height (over 3 %), light rising (over 1 %) or watts not
/// falling as the dimmer falls. Only sweeps that differ in one thing are compared, each with the nearest such one.
/// Lengths are told in `units`.
std::vector<SweepCheck> between_sweeps_checks(std::span<const SweepSummary> sweeps,
                                              UnitSystem units = UnitSystem::Metric);

/// From nearer than 1.5 times the widest gap between emitters the floor sees each of them: no height to advise, either;
/// 0 where the gap is not stated.
double least_height_m(std::optional<double> emitter_spacing_m);

/// Closer than 1.5 times the widest gap between emitters, readings jump between bars and gaps.
std::optional<Finding> too_close_check(double height_m, std::optional<double> emitter_spacing_m,
                                       UnitSystem units = UnitSystem::Metric);

}  // namespace sunbreak
