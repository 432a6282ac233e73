#pragma once

#include <vector>

namespace sunbreak {

/// Between which two of ascending lines of stations a place lies.
struct LineBracket {
  int low = 0, high = 0;
  double share = 0;  ///< of `high`
};

/// The outer line holds beyond itself. A place on a line, to a micrometer, is that line's alone: its neighbors
/// may be unread.
LineBracket bracket_between(const std::vector<double>& lines_m, double place_m);

}  // namespace sunbreak
