#pragma once

#include <limits>
#include <map>
#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "book/bundle.h"
#include "core/power/timed_value.h"
#include "core/power/wall_checks.h"
#include "core/result.h"

namespace sunbreak::book {

/// One moment of a log; NaN where a value is missing.
struct LogSample {
  double time_s = 0;  ///< since 1970, UTC
  double light_raw = missing, power_w = missing, voltage_v = missing, current_a = missing, apparent_va = missing,
         power_factor = missing, frequency_hz = missing;

  static constexpr double missing = std::numeric_limits<double>::quiet_NaN();
};

/// Samples as they lie in the lab book: a column at a time, each value as its difference from the one before in units
/// of the column's last decimal, deflated. Exact for every value of up to six decimals, and for all others too (a
/// column that has one is kept as it is). A day at one a second takes about a megabyte.
Bytes pack_samples(std::span<const LogSample> samples);

/// A Problem where the bytes are not what pack_samples makes.
Result<std::vector<LogSample>> unpack_samples(const Bytes& bytes);

/// Parts that were unpacked before, by id and count.
using UnpackedParts = std::map<Id, std::pair<int, std::vector<LogSample>>>;

/// All that was logged or typed of a test's wall and reference station, by time. Watts noted with a sweep are that
/// sweep's and not part of it.
struct WallLog {
  std::vector<LogSample> samples;  ///< typed ones among them
  std::vector<TimedValue> light;   ///< corrected PPFD at the reference station
  std::vector<TimedValue> watts;
  int unreadable = 0;  ///< parts whose bytes are damaged
};

/// `known` keeps what was unpacked, so that a log that grows is not unpacked anew. The part with the id `except` is
/// left out.
WallLog wall_log(const TestBundle& bundle, UnpackedParts* known = nullptr, Id except = 0);

/// Adds a sample that is later than all others, with the correction of its part.
void append(WallLog& log, const LogSample& sample, const LogPart& part);

/// A log sample or typed reading as the cross-checks of a meter take it.
WallSample wall_sample(const LogSample& sample);

}  // namespace sunbreak::book
