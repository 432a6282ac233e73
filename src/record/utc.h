#pragma once

#include <string>

namespace sunbreak::record {

/// A moment [s since 1970] as records hold it: UTC, ISO 8601 to the millisecond.
std::string utc_text(double time_s);

/// A moment as records hold it, in seconds since 1970; NaN where it is none.
double seconds_of(const std::string& utc);

}  // namespace sunbreak::record
