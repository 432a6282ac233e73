#include "evaluation/wall_log.h"

#include <algorithm>
#include <cmath>

namespace sunbreak::evaluation {
namespace {

constexpr int most_expected = 100'000;  ///< samples of a part, whatever it says of itself

LogSample sample_of(const WallReading& w) {
  const auto value = [](const std::optional<double>& v) { return v.value_or(LogSample::missing); };
  return {seconds_of(w.taken_at), value(w.light_raw),   value(w.power_w),      value(w.voltage_v),
          value(w.current_a),     value(w.apparent_va), value(w.power_factor), value(w.frequency_hz)};
}

void add_to(WallLog& log, const LogSample& s, const Correction& correction) {
  log.samples.push_back(s);
  if (std::isfinite(s.light_raw)) log.light.push_back({s.time_s, corrected_ppfd(s.light_raw, correction)});
  if (std::isfinite(s.power_w)) log.watts.push_back({s.time_s, s.power_w});
}

}  // namespace

void append(WallLog& log, const LogSample& sample, const LogPart& part) { add_to(log, sample, correction_of(part)); }

WallLog wall_log(const TestRecord& b, UnpackedParts* known, Id except) {
  UnpackedParts fresh;
  UnpackedParts& parts = known ? *known : fresh;
  std::erase_if(parts, [&](const auto& entry) {
    return std::none_of(b.log_parts.begin(), b.log_parts.end(), [&](const LogPart& p) { return p.id == entry.first; });
  });
  WallLog log;
  std::size_t count = b.wall_readings.size();
  for (const LogPart& part : b.log_parts) count += static_cast<std::size_t>(std::clamp(part.count, 0, most_expected));
  log.samples.reserve(count), log.light.reserve(count), log.watts.reserve(count);
  for (const LogPart& part : b.log_parts) {
    if (part.id == except) continue;
    UnpackedPart& entry = parts[part.id];
    if (entry.count != part.count) {
      entry = {part.count, {}, 0};
      if (auto samples = unpack_samples(part.samples)) {
        entry.samples = std::move(samples.value());
        entry.impossible = static_cast<int>(std::erase_if(entry.samples, [](auto& s) { return !sample_possible(s); }));
      }
    }
    if (entry.samples.empty() && entry.impossible == 0 && part.count > 0) ++log.unreadable;
    log.impossible += entry.impossible;
    const Correction correction = correction_of(part);
    for (const LogSample& s : entry.samples) add_to(log, s, correction);
  }
  for (const WallReading& w : b.wall_readings)
    if (const LogSample s = sample_of(w); !w.sweep_id && std::isfinite(s.time_s)) add_to(log, s, correction_of(b));
  const auto earlier = [](const auto& x, const auto& y) { return x.time_s < y.time_s; };
  const auto in_order = [&](auto& list) {
    if (!std::is_sorted(list.begin(), list.end(), earlier)) std::stable_sort(list.begin(), list.end(), earlier);
  };
  in_order(log.samples);
  in_order(log.light);
  in_order(log.watts);
  return log;
}

WallSample wall_sample(const LogSample& s) {
  const auto value = [](double v) { return std::isfinite(v) ? std::optional(v) : std::nullopt; };
  return {value(s.voltage_v),   value(s.current_a),    value(s.power_w),
          value(s.apparent_va), value(s.power_factor), value(s.frequency_hz)};
}

}  // namespace sunbreak::evaluation
