#pragma once

#include <optional>

#include "core/checks/walk_checks.h"

namespace sunbreak {

/// Why and how long to look at a station longer before its live value is taken.
struct LongerLook {
  int samples = 0;            ///< values to average in all
  std::optional<double> off;  ///< share by which the reading is over what is likely; none: nothing tells that yet
};

/// Whether the reading just taken at a station wants more values averaged into it while the sensor still stands there:
/// four times as many (at most twelve more) where it is over two standard deviations and over 2 % from what the other
/// readings make likely, which is too little to accuse it and one in twenty by chance; four in all where too few are
/// read yet to tell. Lattices only.
std::optional<LongerLook> longer_look(const WalkedSweep& sweep, int station);

}  // namespace sunbreak
