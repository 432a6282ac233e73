#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/whole_light/whole_light.h"

namespace sunbreak {

/// What is said of a maker's claim once it is held against what was measured.
enum class Verdict {
  Confirmed,     ///< within the interval of the measurement, and that is under a tenth of the claim
  NotToldApart,  ///< within it, but it is wide
  Short,         ///< less than claimed, beyond the interval
  Over,          ///< more than claimed, beyond it
  Contradicted,  ///< what is claimed to be so is not
  NotTestable    ///< not with what was measured here
};

/// "confirmed", "not told apart", "short", "over", "contradicted", "not testable here": as files have it.
std::string_view verdict_id(Verdict verdict);

struct Judgement {
  Verdict verdict = Verdict::NotTestable;
  double difference_pct = unread;  ///< measured less claimed, of the claim
  double chance = unread;          ///< that what is claimed holds, as far as the measurement tells
};

/// As people read it: "short by 8 %", with two figures below 10 %.
std::string verdict_words(const Judgement& judgement);

/// Whether more than claimed is better, or less.
enum class ClaimSense { AtLeast, AtMost };

/// Below this share of the claim an interval (±, k = 2) tells enough to confirm.
inline constexpr double telling_share = 0.1;

/// A figure against its measured counterpart: |measured − claimed| ≤ ± is within. The chance is that the true value is
/// at least the claimed one (normal, ± being two standard deviations), for AtMost that it is at most that. What is
/// claimed to be at most so much is confirmed wherever the whole interval lies under it. Not testable where value or ±
/// is not known, or nothing is claimed (0 or less).
Judgement judge_figure(double claimed, const FoundValue& measured, ClaimSense sense = ClaimSense::AtLeast);

/// The chance from which on a condition counts as kept.
inline constexpr double sure_chance = 0.95;

/// The chance of a figure that is short by just its ±: beyond two standard deviations of a normal one.
inline constexpr double chance_beyond_two_sd = 0.02275013194817921;

/// A claim that a condition holds, by the chance that it does: confirmed from sure_chance on; short where the chance is
/// one at which a figure would be; else not told apart. Contradicted where it does not hold even with what was measured
/// being off by its ± (k = 2). Not testable for NaN.
Judgement judge_condition(double chance, bool may_hold);

/// A claim that something is there or is not, by whether it was found.
Judgement judge_presence(bool claimed, std::optional<bool> found);

/// A count against another: exact.
Judgement judge_count(double claimed, std::optional<double> counted);

/// Whether an efficacy's watts count what the driver loses.
enum class DriverLosses { NotSaid, Counted, LeftOut };

/// What drivers usually lose, and what even a poor one does not exceed, as shares of the watts at the wall.
inline constexpr double usual_driver_share[] = {0.05, 0.15};
inline constexpr double most_driver_share = 0.2;

struct EfficacyJudgement {
  Judgement judgement;
  bool impossible_claim = false, impossible_measurement = false;
  /// The share of the watts that a driver would have to lose for the claim to hold at the emitters.
  FoundValue driver_share;
};

/// A fixture's efficacy against that of its whole light at the wall. A claim that leaves the driver out is short only
/// beyond what a driver can lose; within that it is not testable at the wall. Claims over the
/// ceiling (efficacy_ceiling(), checks/plausibility.h) are contradicted; a measurement over it judges nothing.
EfficacyJudgement judge_efficacy(double claimed, DriverLosses losses, const FoundValue& measured, double ceiling);

}  // namespace sunbreak
