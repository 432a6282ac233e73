#pragma once

#include <cstdint>
#include <initializer_list>
#include <span>
#include <utility>
#include <vector>

#include "core/sweep/field.h"

namespace sunbreak {

/// A part of how unsure a figure is that other entries may share: what it comes from (one number for one calibration of
/// one meter, one bench's edges), and its standard uncertainty in the figure's unit.
struct SharedPart {
  std::uint32_t source = 0;
  double standard = 0;
};

/// One entry's figure as it stands in a line-up: its value with what it is sure to. What no other entry can share is
/// one variance, what one more test of the same thing would differ by another, which counts between entries only;
/// `bias` is what pulls the figure one way (JCGM 100, F.2.4.5). Value NaN: the entry has no such figure.
struct Standing {
  double value = unread;
  double own_variance = 0, between_variance = 0, bias = 0;
  std::vector<SharedPart> shared;  ///< by source, ascending, each source once

  /// Of the value itself, shared or not.
  double variance() const;
  /// The same with what one more test would differ by: of all that counts between entries.
  double variance_between() const { return variance() + between_variance; }
  /// U = 2 u + |bias| (k = 2) of the value itself, as wherever else it is told.
  double expanded() const;
};

/// A difference with its ± (k = 2).
struct StandingDifference {
  double value = 0, expanded = 0;
  bool beyond() const { return (value < 0 ? -value : value) > expanded; }
};

/// `a` less `b`. What both take from one source cancels as far as it is alike: u² = own + between, of both, + Σ (aₛ −
/// bₛ)².
StandingDifference difference(const Standing& a, const Standing& b);

/// A value that others make, with the slope on each of them: their parts go along by their slopes, those of one source
/// together and with their signs.
Standing worked_out(double value, std::span<const std::pair<double, const Standing*>> from);
inline Standing worked_out(double value, std::initializer_list<std::pair<double, const Standing*>> from) {
  return worked_out(value, std::span(from.begin(), from.size()));
}

}  // namespace sunbreak
