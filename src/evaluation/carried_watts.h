#pragma once

#include <optional>
#include <string>

#include "record/test_record.h"

namespace sunbreak::evaluation {

/// Watts that were read at a dimmer setting with a sweep at another height.
struct WattsOfSetting {
  double power_w = 0, height_m = 0, read_s = 0;
  std::string read_at;  ///< UTC
};

/// The latest watts read at the setting of a sweep with another of its test's; nothing where there are none, or their
/// time is not known.
std::optional<WattsOfSetting> watts_of_setting(const record::TestRecord& test, record::Id sweep_id);

/// "4 min ago", "3 h ago", "2 days ago".
std::string ago_words(double seconds);

}  // namespace sunbreak::evaluation
