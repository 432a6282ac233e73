#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/finding.h"
#include "core/checks/wall_checks.h"
#include "core/quantity/display.h"

namespace sunbreak {

/// Micromoles of photons from 400 to 700 nm that a joule can become at the very most: all of it as light of 700 nm,
/// whose photons are the cheapest, without any loss (λ ÷ (h · c · N_A)) [µmol J⁻¹].
inline constexpr double most_efficacy = 5.85;

/// The most that a light can have, and whose that is: "5.85 µmol/J, what any light gives without any loss".
double efficacy_ceiling(std::optional<double> photons_per_joule);
std::string ceiling_words(std::optional<double> photons_per_joule);

/// What is stated of a sweep and of what it was taken with.
struct SweepStatement {
  std::optional<double> power_w;          ///< at the wall plug
  std::optional<double> claimed_power_w;  ///< by the maker, at full setting
  double dimmer_pct = 100, height_m = 0;
  std::vector<double> heights_m;                           ///< of all of the test's rungs
  std::optional<double> fixture_width_m, fixture_depth_m;  ///< all of its units together

  /// Photons of 400 to 700 nm a joule of the light's own spectrum holds [µmol J⁻¹]; none where it is not known.
  std::optional<double> photons_per_joule;
  /// Light is counted again where floor and walls send it back to the stations: by this at most.
  double most_return = 1;
  std::vector<WallSample> wall;  ///< what its own wall readings say

  UnitSystem units = UnitSystem::Metric;  ///< that lengths are told in

  bool operator==(const SweepStatement&) const = default;
};

/// What no single value's range can catch, since each could be: efficacy that no lamp has, or next to none; watts
/// unlike the claim by a factor, or unlike the sweep's own wall readings; wall readings whose numbers cannot be
/// together (wall_checks.h); a height that is ten times or a tenth of the others', or out of proportion to the
/// bench; a fixture several times as large as the bench. Slips of a digit and of a unit look like this. What physics
/// rules out is Impossible. `ppfd` is one a station, NaN where unread. Costs a pass over the stations.
std::vector<Finding> plausibility_checks(const Layout& layout, std::span<const double> ppfd,
                                         const SweepStatement& statement);

/// How a sweep's readings were taken: when, by whoever sat at the bench, and how far the samples of one lay apart.
struct TakenReading {
  double taken_s = 0;  ///< since 1970; NaN where not known, or not of the bench
  double raw = 0;
  std::optional<double> spread;  ///< standard deviation of its samples, raw
};

/// Readings that nobody can have taken so: more than two a second, one after the other; samples of one that lie as far
/// apart as they are high. `readings` are one a station that was read.
std::vector<Finding> taking_checks(std::span<const TakenReading> readings);

}  // namespace sunbreak
