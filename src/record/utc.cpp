#include "record/utc.h"

#include <fmt/format.h>

#include <cmath>
#include <cstdint>
#include <cstdio>
#include <ctime>
#include <limits>

namespace sunbreak::record {

std::string utc_text(double time_s) {
  const auto ms = static_cast<std::int64_t>(std::llround(time_s * 1000));
  const std::time_t seconds = static_cast<std::time_t>(ms / 1000);
  std::tm utc{};
  gmtime_r(&seconds, &utc);
  char text[32];
  std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%S", &utc);
  return fmt::format("{}.{:03}Z", text, ms % 1000);
}

double seconds_of(const std::string& utc) {
  std::tm t{};
  double seconds = 0;
  if (std::sscanf(utc.c_str(), "%d-%d-%dT%d:%d:%lf", &t.tm_year, &t.tm_mon, &t.tm_mday, &t.tm_hour, &t.tm_min,
                  &seconds) != 6)
    return std::numeric_limits<double>::quiet_NaN();
  t.tm_year -= 1900;
  --t.tm_mon;
  return static_cast<double>(timegm(&t)) + seconds;
}

}  // namespace sunbreak::record
