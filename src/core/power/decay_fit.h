#pragma once

#include <optional>
#include <span>

#include "core/power/timed_value.h"

namespace sunbreak {

/// A log as a value that stabilizes: v(t) = v∞ + A·exp(−(t − t₀)/τ).
struct DecayFit {
  double end_value = 0;        ///< v∞
  double fall_share = 0;       ///< A / v∞: above 0 where the value falls, below where it rises
  double start_s = 0;          ///< t₀: where the fitted stretch of the log begins
  double time_constant_s = 0;  ///< τ
  double remaining_share = 0;  ///< A·exp(−(now − t₀)/τ) / v∞ at the log's end
  double remaining_sd = 0;     ///< its standard uncertainty
  double chance_of_much = 0;   ///< probability that more than 1 % is still to come
  double window_change = 0;    ///< what the fitted curve changed by over the last 30 min [share of v∞]
  double noise_share = 0;      ///< scatter of the one-minute means about the fit, over v∞
  double undisturbed_s = 0;    ///< since the stretch began, or since the step in it

  /// When the fall still to come will have come down to a share [s from the log's end; 0 where it has], by the fit.
  double time_until_s(double share) const;
};

/// The fit of the latest stretch of a log that one decay describes, perhaps with one step in it: of the whole log, or,
/// where more disturbances spoil that, of what came after. τ from 1.5 min to 6 h and the step's moment run over every
/// value the data allow, each weighed by how well it fits; all other parameters by least squares (docs/method.md).
/// Nothing for logs under 15 min or six minutes with a value. About 20 ms for a day at one value a second.
std::optional<DecayFit> fit_decay(std::span<const TimedValue> log);

}  // namespace sunbreak
