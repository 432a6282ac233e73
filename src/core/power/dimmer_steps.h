#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/result.h"

namespace sunbreak {

/// The places that a dimmer can be set to: marks with a place of their own, or whole multiples of a step; a free one
/// stands anywhere.
struct DimmerSteps {
  bool free = false;
  double step_pct = 1;
  std::vector<double> marks_pct;  ///< ascending; where there are any, the step does not count
  bool operator==(const DimmerSteps&) const = default;
};

/// From "free", "5" or "5 %" for a step, "25, 50, 75, 100" for marks, which may have names: "low 40, bloom 100".
/// Nothing typed is whole percents.
Result<DimmerSteps> parse_dimmer_steps(std::string_view text);

/// Where such a dimmer stands from one end to another [%], ascending; nothing for a free one.
std::vector<double> settable_pct(const DimmerSteps& steps, double low_pct, double high_pct);

}  // namespace sunbreak
