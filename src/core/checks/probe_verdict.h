#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"
#include "core/optics/hang_response.h"
#include "core/quantity/display.h"

namespace sunbreak {

/// How the corners of the opening probe stand to each other, in % of their mean: right over left, far over near, less
/// what the room itself makes of a fixture that hangs true.
struct ProbeBalance {
  double right_over_left_pct = 0, far_over_near_pct = 0;
};

/// Nothing until all four corners are read.
std::optional<ProbeBalance> probe_balance(const Layout& layout, std::span<const double> ppfd, const HangResponse& hang);

/// What five readings say of level and center. Over 5 % it names the side or corner that hangs low or the way the
/// fixture sits off, and about how far, by the optical model of the stated fixture; light alone cannot tell a lean from
/// a shift, so both are given. Below that, noise could do it, and the words say that it hangs true. Nothing
/// is said of a hang while one of the five is odd.
struct ProbeVerdict {
  std::string words;
  std::optional<Finding> check;
};
std::optional<ProbeVerdict> probe_verdict(const Layout& layout, std::span<const double> ppfd, const HangResponse& hang,
                                          UnitSystem units = UnitSystem::Metric);

}  // namespace sunbreak
