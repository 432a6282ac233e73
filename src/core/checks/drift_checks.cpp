#include "core/checks/drift_checks.h"

#include <fmt/format.h>

#include <cmath>

namespace sunbreak {

std::optional<Finding> drift_check(const Drift& drift) {
  const double change = drift.largest_change();
  if (!drift.significant() || !(std::abs(change) > drift_shown)) return {};
  const bool grave = std::abs(change) > drift_of_benchmark_grade;
  return Finding{"drift at the reference",
                 grave ? Severity::Bad : Severity::Look,
                 {},
                 fmt::format("the reference station moved {:.1f} % {} while this sweep was walked",
                             100 * std::abs(change), change < 0 ? "down" : "up"),
                 grave ? "readings are scaled back to the start, but over 3 % the sweep is not of benchmark grade"
                       : "readings are scaled back to the start of the walk; the raw values are kept",
                 grave ? "let the fixture settle, then walk the sweep again"
                       : "let the fixture warm up longer before the next sweep"};
}

}  // namespace sunbreak
