#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"
#include "core/quantity/display.h"

namespace sunbreak {

/// Micromoles of photons from 400 to 700 nm that a joule can become at the very most in a lamp that lights plants: what
/// the best red emitters would give without any loss [µmol J⁻¹].
inline constexpr double most_efficacy = 5.6;

/// What is stated of a sweep and of what it was taken with.
struct SweepStatement {
  std::optional<double> power_w;          ///< at the wall plug
  std::optional<double> claimed_power_w;  ///< by the maker, at full setting
  double dimmer_pct = 100, height_m = 0;
  std::vector<double> heights_m;                           ///< of all of the test's rungs
  std::optional<double> fixture_width_m, fixture_depth_m;  ///< all of its units together

  UnitSystem units = UnitSystem::Metric;  ///< that lengths are told in

  bool operator==(const SweepStatement&) const = default;
};

/// What no single value's range can catch, since each could be: efficacy that no lamp has, or next to none; watts
/// unlike the claim by a factor; a height that is ten times or a tenth of the others', or out of proportion to the
/// bench; a fixture several times as large as the bench. Slips of a digit and of a unit look like this. What physics
/// rules out is Impossible. `ppfd` is one a station, NaN where unread. Costs a pass over the stations.
std::vector<Finding> plausibility_checks(const Layout& layout, std::span<const double> ppfd,
                                         const SweepStatement& statement);

}  // namespace sunbreak
