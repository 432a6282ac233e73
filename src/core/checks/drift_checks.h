#pragma once

#include <optional>

#include "core/checks/finding.h"
#include "core/sweep/drift.h"

namespace sunbreak {

inline constexpr double drift_shown = 0.01, drift_of_benchmark_grade = 0.03;

/// Drift that is told from noise: over 1 % the drift of a sweep is named, over 3 % the sweep is not of benchmark grade.
std::optional<Finding> drift_check(const Drift& drift);

}  // namespace sunbreak
