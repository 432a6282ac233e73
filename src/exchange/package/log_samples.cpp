#include "exchange/package/log_samples.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <map>
#include <stdexcept>

#include "core/quantity/number.h"
#include "evaluation/wall_log.h"
#include "exchange/package/csv_writer.h"
#include "exchange/tables/delimited.h"

namespace sunbreak::exchange {
namespace {

constexpr const char* log_columns =
    "log_part_id,time_s,light_raw,power_w,voltage_v,current_a,apparent_va,power_factor,frequency_hz";
constexpr std::size_t log_values = 8;

/// A log sample's values in the order of log_columns.
std::array<double*, log_values> values_of(LogSample& s) {
  return {&s.time_s,    &s.light_raw,   &s.power_w,      &s.voltage_v,
          &s.current_a, &s.apparent_va, &s.power_factor, &s.frequency_hz};
}

bool whole_number(const std::string& cell, Id& value) {
  const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), value);
  return error == std::errc{} && end == cell.data() + cell.size();
}

}  // namespace

std::string log_samples_csv(const std::vector<LogPart>& parts) {
  std::string csv = std::string(log_columns) + "\r\n";
  for (const LogPart& part : parts) {
    auto samples = unpack_samples(part.samples);
    if (!samples) throw std::runtime_error(samples.problem().sentence());
    for (LogSample& s : samples.value()) {
      csv += std::to_string(part.id);
      for (const double* value : values_of(s)) csv += "," + number_cell(*value);
      csv += "\r\n";
    }
  }
  return csv;
}

void take_log_samples(const Archive& archive, int format, std::vector<LogPart>& parts) {
  const auto member = archive.find("log_sample.csv");
  if (member == archive.end()) {
    if (format < 3) return;
    throw std::runtime_error("log_sample.csv is not in it");
  }
  const Rows rows = split_verbatim(member->second);
  if (rows.empty() || rows[0].size() != log_values + 1)
    throw std::runtime_error("log_sample.csv has other columns than it should");
  std::map<Id, std::vector<LogSample>> samples;
  for (std::size_t row = 1; row < rows.size(); ++row) {
    Id part = 0;
    if (rows[row].size() != rows[0].size() || !whole_number(rows[row][0], part))
      throw std::runtime_error(fmt::format("log_sample.csv, row {}: not the cells it should have", row + 1));
    LogSample& s = samples[part].emplace_back();
    const auto values = values_of(s);
    for (std::size_t i = 0; i < log_values; ++i) {
      const std::string& cell = rows[row][i + 1];
      if (cell.empty()) continue;
      const auto number = parse_number(cell);
      if (number) *values[i] = *number;
      if (!number)
        throw std::runtime_error(
            fmt::format("log_sample.csv, row {}: '{}' cannot be read", row + 1, cell.substr(0, 40)));
    }
    if (std::isnan(s.time_s)) throw std::runtime_error(fmt::format("log_sample.csv, row {}: no time", row + 1));
  }
  for (LogPart& part : parts) {
    const auto& own = samples[part.id];
    if (static_cast<int>(own.size()) != part.count)
      throw std::runtime_error(fmt::format("log part {} has {} samples, not {}", part.id, own.size(), part.count));
    part.samples = pack_samples(own);
  }
  for (const auto& [id, own] : samples)
    if (std::none_of(parts.begin(), parts.end(), [&](const LogPart& p) { return p.id == id; }))
      throw std::runtime_error("a row refers to another that is not there");
}

}  // namespace sunbreak::exchange
