#pragma once

#include <span>
#include <string_view>

namespace sunbreak {

/// A crop target: a band of PPFD [µmol m⁻² s⁻¹] or of daily light [mol m⁻² d⁻¹], with the photoperiod [h] it goes with.
struct Target {
  std::string_view name;
  double low = 0, high = 0, photoperiod_h = 0;
  bool by_daily_light = false;
};

/// The targets of one school, and why it draws them so.
struct TargetSet {
  std::string_view name, reason;
  std::span<const Target> targets;
};

/// The sets that ship with the application; the first is the default.
std::span<const TargetSet> shipped_target_sets();

}  // namespace sunbreak
