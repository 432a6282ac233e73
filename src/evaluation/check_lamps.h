#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/checks/finding.h"
#include "core/meters/check_lamp.h"
#include "record/test_record.h"

namespace sunbreak::evaluation {

/// The charts of check lamps, and who moved.
struct LampBoard {
  std::vector<CheckReading> readings;  ///< by day, each once
  std::vector<std::string> days;       ///< "2026-03-14", one a reading
  std::vector<LampChart> charts;
  std::vector<LampFinding> findings;
};

/// Of readings on record; meters are told by their names. A reading that is there twice, as after a package came back,
/// counts once. A Problem as of lamp_charts().
Result<LampBoard> lamp_board(std::span<const record::CheckLampReading> rows, std::span<const record::Meter> meters);

/// The same of readings that came otherwise, each with its day in words.
Result<LampBoard> lamp_board(std::vector<CheckReading> readings, std::vector<std::string> days);

/// When a test was made, to the end of its day [s since 1970]; NaN where that is not known.
double tested_at_s(const record::Test& test);

/// That the sensor of a test has moved before the test was made, by its check lamp: the latest such finding. Nothing
/// where it has not, or where the test's day is not known.
std::optional<LampFinding> sensor_moved(const record::TestRecord& record);

/// The same as a check tells it; nothing where all sweeps of the test are corrected for it already.
std::optional<Finding> moved_sensor_check(const record::TestRecord& record);

}  // namespace sunbreak::evaluation
