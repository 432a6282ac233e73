#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>

#include "core/claims/verdict.h"

namespace sunbreak {

/// A part of what a measured figure is sure to.
struct SurePart {
  std::string id;       ///< as the budget names it, or "fit" for what beam and room leave open
  double expanded = 0;  ///< relative, k = 2
};

/// What would make a verdict surer: its weakest link, and the one act that helps most.
struct Lift {
  std::string_view weakest;             ///< in words
  std::string_view act;                 ///< in words, as an imperative
  double from = 0, to = 0;              ///< relative ± (k = 2) before, and after the act
  Verdict then = Verdict::NotTestable;  ///< if the value stays what it is
};

/// Of all parts the one whose act narrows the interval most. Nothing where no act narrows it by a twentieth.
std::optional<Lift> best_lift(double claimed, const FoundValue& measured, std::span<const SurePart> parts,
                              ClaimSense sense = ClaimSense::AtLeast);

/// "read the reference again more often: ± 6.0 → ± 4.1 %; then the claim is told apart"
std::string lift_words(const Lift& lift, Verdict now);

}  // namespace sunbreak
