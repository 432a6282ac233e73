#pragma once

#include <span>
#include <string_view>

namespace sunbreak {

/// A crop target: a PPFD band [µmol m⁻² s⁻¹] with the photoperiod [h] it goes with.
struct Target {
  std::string_view name;
  double low_ppfd = 0, high_ppfd = 0, photoperiod_h = 0;
};

/// The targets of one school, and why it draws them so.
struct TargetSet {
  std::string_view name, reason;
  std::span<const Target> targets;
};

/// The sets that ship with the application; the first is the default.
std::span<const TargetSet> shipped_target_sets();

}  // namespace sunbreak
