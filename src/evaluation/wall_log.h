#pragma once

#include <map>
#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "core/power/timed_value.h"
#include "core/power/wall_checks.h"
#include "evaluation/sweep_view.h"
#include "record/log_samples.h"

namespace sunbreak::evaluation {

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
WallLog wall_log(const TestRecord& test_record, UnpackedParts* known = nullptr, Id except = 0);

/// Adds a sample that is later than all others, with the correction of its part.
void append(WallLog& log, const LogSample& sample, const LogPart& part);

/// A log sample or typed reading as the cross-checks of a meter take it.
WallSample wall_sample(const LogSample& sample);

}  // namespace sunbreak::evaluation
