#pragma once

#include <string>
#include <vector>

namespace sunbreak {

enum class Severity {
  Look,
  Bad,
  Impossible  ///< ruled out by physics: no reason sets it aside
};

/// Something a check noticed: what it saw, what that does to the result, what to do.
struct Finding {
  std::string id;  ///< the rule's name, stable
  Severity severity = Severity::Look;
  std::vector<int> stations;  ///< indices it is about; empty for the sweep as a whole
  std::string saw, effect, remedy;

  bool operator==(const Finding&) const = default;
};

}  // namespace sunbreak
