#include "evaluation/check_lamps.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

#include "core/quantity/uncertain_text.h"
#include "record/spectrum_samples.h"
#include "record/utc.h"

namespace sunbreak::evaluation {
namespace {

constexpr double seconds_a_day = 86'400;

std::string meter_name(std::span<const record::Meter> meters, record::Id id) {
  const auto found = std::ranges::find(meters, id, &record::Meter::id);
  return found == meters.end() ? "a meter that is gone" : found->name;
}

}  // namespace

Result<LampBoard> lamp_board(std::span<const record::CheckLampReading> rows, std::span<const record::Meter> meters) {
  std::vector<const record::CheckLampReading*> by_day;
  for (const record::CheckLampReading& row : rows) by_day.push_back(&row);
  std::ranges::stable_sort(by_day, {}, &record::CheckLampReading::taken_at);
  std::vector<CheckReading> readings;
  std::vector<std::string> days;
  std::set<std::tuple<std::string, std::string, std::string>> known;
  for (const record::CheckLampReading* row : by_day) {
    auto light = record::numbers_of(row->light);
    const double taken_s = record::seconds_of(row->taken_at);
    const std::string meter = meter_name(meters, row->meter_id);
    if (!light || std::isnan(taken_s) || !known.emplace(row->lamp, meter, row->taken_at).second) continue;
    readings.push_back({taken_s / seconds_a_day, row->lamp, meter, std::move(*light), row->watts});
    days.push_back(row->taken_at.substr(0, 10));
  }
  return lamp_board(std::move(readings), std::move(days));
}

Result<LampBoard> lamp_board(std::vector<CheckReading> readings, std::vector<std::string> days) {
  auto charts = lamp_charts(readings);
  if (!charts) return charts.problem();
  auto findings = lamp_findings(readings, charts.value());
  return LampBoard{std::move(readings), std::move(days), std::move(charts.value()), std::move(findings)};
}

double tested_at_s(const record::Test& test) {
  const std::string& day = test.tested_on.empty() ? test.created_at : test.tested_on;
  return record::seconds_of(day.size() > 10 ? day : day + "T23:59:59Z");
}

std::optional<LampFinding> sensor_moved(const record::TestRecord& record) {
  const record::Meter* sensor = record.meter(record.test.sensor_id);
  const double tested_s = tested_at_s(record.test);
  if (!sensor || record.check_readings.empty() || std::isnan(tested_s)) return {};
  const auto board = lamp_board(record.check_readings, record.meters);
  if (!board) return {};
  std::optional<LampFinding> latest;
  for (const LampFinding& f : board.value().findings)
    if (f.mover != Mover::Lamp && f.who == sensor->name && f.since_day * seconds_a_day <= tested_s &&
        (!latest || f.since_day > latest->since_day))
      latest = f;
  return latest;
}

std::optional<Finding> moved_sensor_check(const record::TestRecord& record) {
  const bool corrected = !record.sweeps.empty() &&
                         std::ranges::all_of(record.sweeps, [](const record::Sweep& s) { return s.moved_factor != 1; });
  const auto moved = corrected ? std::nullopt : sensor_moved(record);
  if (!moved) return {};
  const std::string since = record::utc_text(moved->since_day * seconds_a_day).substr(0, 10);
  const bool sure = moved->mover == Mover::Sensor || moved->mover == Mover::Both;
  const std::string change = uncertain_difference(100 * moved->change, 100 * moved->expanded, 1);
  return Finding{
      sure ? "sensor moved" : "check lamp moved",
      Severity::Look,
      {},
      sure ? fmt::format("by its check lamp the sensor {} has moved by {} % since {}", moved->who, change, since)
           : fmt::format("the check lamp reads {} % by the sensor {} since {}; which of the two moved is not told",
                         change, moved->who, since),
      sure ? "all light of this test is off by as much" : "the light of this test may be off by as much",
      sure ? "Check lamp on Home offers a factor for it; or have the sensor calibrated and read again"
           : "read a second lamp, or this one by a second meter, on Home"};
}

}  // namespace sunbreak::evaluation
