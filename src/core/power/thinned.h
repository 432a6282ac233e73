#pragma once

#include <span>
#include <vector>

#include "core/power/timed_value.h"

namespace sunbreak {

/// What a log shows within one column of a picture: its lowest and highest value, so that no spike is hidden, and the
/// first and last, so that neighboring columns join up.
struct ThinColumn {
  int column = 0;
  double first = 0, last = 0, low = 0, high = 0;
  double first_s = 0, last_s = 0;
};

/// A log seen through a window of time [s] that is so many columns wide; columns without a value are left out. Takes
/// time in proportion to the values in the window.
std::vector<ThinColumn> thinned(std::span<const TimedValue> log, double from_s, double to_s, int columns);

}  // namespace sunbreak
