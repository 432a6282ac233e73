#include "record/utc.h"

#include <fmt/format.h>

#include <charconv>
#include <chrono>
#include <cmath>
#include <cstdint>
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
  constexpr double none = std::numeric_limits<double>::quiet_NaN();
  const char *at = utc.data(), *const end = at + utc.size();
  // Reads a number and the mark after it, if there is to be one.
  const auto take = [&](auto& number, char mark) {
    const auto [after, error] = std::from_chars(at, end, number);
    if (error != std::errc{} || (mark != 0 && (after == end || *after != mark))) return false;
    at = mark != 0 ? after + 1 : after;
    return true;
  };
  int year = 0, hour = 0, minute = 0;
  unsigned month = 0, day = 0;
  double second = 0;
  if (!take(year, '-') || !take(month, '-') || !take(day, 'T') || !take(hour, ':') || !take(minute, ':') ||
      !take(second, 0))
    return none;
  const std::chrono::year_month_day date{std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)};
  if (!date.ok() || hour < 0 || hour > 24 || minute < 0 || minute > 59 || !(second >= 0 && second < 61)) return none;
  const auto days = std::chrono::sys_days(date).time_since_epoch().count();
  return static_cast<double>(days) * 86400 + hour * 3600 + minute * 60 + second;
}

}  // namespace sunbreak::record
