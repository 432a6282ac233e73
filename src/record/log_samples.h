#pragma once

#include <limits>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/result.h"
#include "record/kinds/value.h"

namespace sunbreak::record {

/// One moment of a log; NaN where a value is missing.
struct LogSample {
  double time_s = 0;  ///< since 1970, UTC
  double light_raw = missing, power_w = missing, voltage_v = missing, current_a = missing, apparent_va = missing,
         power_factor = missing, frequency_hz = missing;

  static constexpr double missing = std::numeric_limits<double>::quiet_NaN();
};

/// What of a sample cannot be, in words; nothing where all of it can: a moment of two centuries about ours, light and
/// watts within what the columns of readings allow.
std::optional<std::string> sample_fault(const LogSample& sample);

/// Whether all of a sample can be, as sample_fault() says.
bool sample_possible(const LogSample& sample);

/// Samples as they lie in the lab book: a column at a time, each value as its difference from the one before in units
/// of the column's last decimal, deflated. Exact for every value of up to six decimals, and for all others too (a
/// column that has one is kept as it is). A day at one a second takes about a megabyte.
Bytes pack_samples(std::span<const LogSample> samples);

/// A Problem where the bytes are not what pack_samples makes.
Result<std::vector<LogSample>> unpack_samples(const Bytes& bytes);

}  // namespace sunbreak::record
