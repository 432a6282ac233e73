#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/result.h"

namespace sunbreak {

/// Light at one place of the sensor during one step of a stair.
struct StairLight {
  int station = 0;
  double ppfd = 0;                    ///< corrected [µmol m⁻² s⁻¹]
  std::optional<double> error_share;  ///< standard error of the reading over the reading, where it is known
};

/// One setting of the dimmer, as it was read. A dial at 0 is standby: plugged in, no light asked for.
struct StairStep {
  double dial_pct = 0;
  double time_s = 0;  ///< on any clock
  std::optional<double> power_w, power_factor;
  std::vector<StairLight> light;
};

/// What a stair says of one setting.
struct DimmingPoint {
  double dial_pct = 0;
  std::optional<double> light_factor;           ///< mean over the stations of E(stop) / E(100 %)
  std::optional<double> spread;                 ///< (highest − lowest) of the stations' factors over their mean
  std::optional<double> power_w, power_factor;  ///< as read
  std::optional<double> power_share;            ///< of the power at 100 %
  std::optional<double> relative_efficacy;      ///< light factor over power share: above 1 where dimming saves
  std::optional<double> off_linear;             ///< light factor less the dial, in shares of full light
  int stations = 0;
};

struct DimmingCurve {
  std::vector<DimmingPoint> rows;    ///< one a setting, highest dial first; without standby
  double full_dial_pct = 100;        ///< the setting that counts as full
  std::optional<double> standby_w;   ///< power with the dial at 0
  std::optional<double> lowest_pct;  ///< lowest setting that still gives light
  std::optional<double> drift;       ///< of the light at full from the stair's first to its last reading of it
  std::optional<std::string> pattern_changes;  ///< where the factor differs between the stations: in words
  std::optional<std::string> full_is_guessed;  ///< where 100 % was not read

  /// Light factor and power [W] at any setting between the lowest and the highest read, by a monotone cubic; nothing
  /// beyond them, or with fewer than two settings.
  std::optional<double> light_factor_at(double dial_pct) const;
  std::optional<double> power_at(double dial_pct) const;
};

/// Works a stair out. Readings of one setting made twice are averaged; where full was read at different times, what it
/// drifted between them is taken out of the other steps, linearly in time. Stations read at full count alone. A Problem
/// where no step has light or power, or a dial is out of 0 … 200 %.
Result<DimmingCurve> dimming_curve(std::span<const StairStep> steps);

inline constexpr double one_pattern_spread = 0.03;  ///< from here on one factor will not do

}  // namespace sunbreak
