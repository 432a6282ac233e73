#include "evaluation/carried_watts.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "record/utc.h"

namespace sunbreak::evaluation {

std::optional<WattsOfSetting> watts_of_setting(const record::TestRecord& test, record::Id sweep_id) {
  const auto own = std::ranges::find(test.sweeps, sweep_id, &record::Sweep::id);
  if (own == test.sweeps.end()) return {};
  std::optional<WattsOfSetting> latest;
  for (const record::WallReading& reading : test.wall_readings) {
    const auto sweep = std::ranges::find(test.sweeps, reading.sweep_id.value_or(0), &record::Sweep::id);
    if (sweep == test.sweeps.end() || sweep->id == sweep_id || sweep->stop_id != own->stop_id || sweep->confirms)
      continue;
    const record::Rung* rung = test.rung(sweep->rung_id);
    const double at = record::seconds_of(reading.taken_at);
    // What counts for that sweep, not what was typed before.
    if (!rung || !reading.power_w || reading.power_w != sweep->power_w || !std::isfinite(at)) continue;
    if (!latest || at > latest->read_s) latest = WattsOfSetting{*reading.power_w, rung->height_m, at, reading.taken_at};
  }
  return latest;
}

std::string ago_words(double seconds) {
  constexpr double minute = 60, hour = 3600, day = 86400;
  if (seconds < 1.5 * minute) return "just now";
  if (seconds < 1.5 * hour) return fmt::format("{:.0f} min ago", seconds / minute);
  if (seconds < 1.5 * day) return fmt::format("{:.0f} h ago", seconds / hour);
  return fmt::format("{:.0f} days ago", seconds / day);
}

}  // namespace sunbreak::evaluation
