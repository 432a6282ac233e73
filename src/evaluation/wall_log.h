#pragma once

#include <map>
#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "core/checks/wall_checks.h"
#include "core/power/timed_value.h"
#include "evaluation/sweep_view.h"
#include "record/log_samples.h"

namespace sunbreak::evaluation {

/// A part of a log as it was unpacked.
struct UnpackedPart {
  int count = 0;  ///< of the part when it was unpacked
  std::vector<LogSample> samples;
  int impossible = 0;  ///< samples left out, since they hold what no meter can show
};
/// Parts that were unpacked before, by id.
using UnpackedParts = std::map<Id, UnpackedPart>;

/// All that was logged or typed of a test's wall and reference station, by time. Watts noted with a sweep are that
/// sweep's and not part of it.
struct WallLog {
  std::vector<LogSample> samples;  ///< typed ones among them
  std::vector<TimedValue> light;   ///< corrected PPFD at the reference station
  std::vector<TimedValue> watts;
  int unreadable = 0;  ///< parts whose bytes are damaged
  int impossible = 0;  ///< samples that hold what no meter can show, and are left out
};

/// `known` keeps what was unpacked, so that a log that grows is not unpacked anew. The part with the id `except` is
/// left out.
WallLog wall_log(const TestRecord& test_record, UnpackedParts* known = nullptr, Id except = 0);

/// Adds a sample that is later than all others, with the correction of its part.
void append(WallLog& log, const LogSample& sample, const LogPart& part);

/// A log sample or typed reading as the cross-checks of a meter take it.
WallSample wall_sample(const LogSample& sample);

}  // namespace sunbreak::evaluation
