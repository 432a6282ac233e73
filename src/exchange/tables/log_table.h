#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/result.h"
#include "exchange/tables/sweep_table.h"
#include "record/log_samples.h"

namespace sunbreak::exchange {

/// What a logger's table was understood to say. Nothing is in the lab book yet.
struct LogDraft {
  std::string encoding;
  std::vector<record::LogSample> samples;  ///< by time
  bool dated = false;  ///< times are of a calendar [s since 1970, taken as UTC]; else from the log's start
  std::vector<std::string> understood;  ///< in words, for the preview
  std::vector<Finding> findings;
};

/// Reads a logger's table: a header row that names its columns (time, and any of light, watts, volts, amperes,
/// volt-amperes, power factor, hertz; kW, mA and the like are converted where the header says so), one row a moment.
/// Times: seconds, minutes or hours as the header says, h:mm:ss, or date and time (2026-03-14 09:30:00 or 14.03.2026
/// 09:30). A cell that is not surely a number is left out of its row and a finding; a row of another length, or without
/// a time later than the one before, is refused whole. A Problem where nothing could be taken.
Result<LogDraft> read_log_table(std::string_view bytes);

}  // namespace sunbreak::exchange
