#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>

#include "core/quantity/length.h"
#include "core/result.h"

namespace sunbreak {

/// What a number that a person gives stands for, and where it can lie.
struct QuantityRange {
  std::string what;  ///< "a photoperiod"
  std::string unit;  ///< "h"; empty: none. Lengths: "m"
  double least = 0, most = 0;
  bool over_least = false;  ///< the least itself does not do
  bool whole = false;       ///< counts

  bool holds(double value) const { return value <= most && (over_least ? value > least : value >= least); }
  /// "more than 0 and at most 24 h", "30 cm to 10 m"
  std::string words() const;
};

/// Reads a number, with the range's unit behind it or without.
Result<double> parse_within(std::string_view text, const QuantityRange& range);

/// Reads a length with its unit; meters.
Result<double> parse_length_within(std::string_view text, const QuantityRange& range);

/// Why a value that is there already cannot be; nothing where it can.
std::optional<Problem> range_fault(double value, const QuantityRange& range);

/// Reads two counts as 6x8, 6X8 or 6 × 8; nothing where they are none.
std::optional<std::pair<int, int>> parse_counts(std::string_view text, const QuantityRange& range);

}  // namespace sunbreak
