#pragma once

#include <optional>
#include <span>
#include <string>

#include "core/power/decay_fit.h"

namespace sunbreak {

inline constexpr double stabilization_window_s = 30 * 60, stabilized_share = 0.005;

enum class StabilizationState {
  Dark,      ///< nothing to judge: its last 30 min are zero or below in the mean
  TooShort,  ///< not enough of a log to say
  Moving,    ///< it still falls or rises
  Stabilized
};

/// What a log says at its end. Shares are of the value itself.
struct StabilizationVerdict {
  StabilizationState state = StabilizationState::TooShort;
  double change_in_window = 0;            ///< (highest − lowest) / mean of the averages of the last 30 min
  std::optional<DecayFit> fit;            ///< none for sparse logs: then the 30-minute rule alone was asked
  std::optional<double> stabilizes_in_s;  ///< from the log's end; none where the data do not support one
  std::optional<double> fall_since_on;    ///< (first − end) / end, from the fit over the whole log
  std::string words;                      ///< the verdict with the number behind it
};

/// Settled: over the last 30 min, from a continuous log or at least three readings over that time, the averages differ
/// by at most 0.5 % of their mean; and the fall still to come, by the fitted decay, is at most 0.5 %, with a chance of
/// at most 10 % (0.2 % for logs under 45 min) that it is more than 1 %. The rule works on five-minute averages, so that
/// reading noise does not decide it, and on the fitted curve. Readings that scatter about their own averages by over
/// 10 %, or leave an average uncertain by over 1 %, swing: no average of them is taken for a value that stands.
StabilizationVerdict stabilized(std::span<const TimedValue> log);

/// Light and watts together: the less stabilized of the two.
StabilizationVerdict later_of(const StabilizationVerdict& light, const StabilizationVerdict& watts);

}  // namespace sunbreak
