#include "exchange/package/log_samples.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <stdexcept>

#include "core/quantity/number.h"
#include "evaluation/wall_log.h"
#include "exchange/package/cell_values.h"
#include "exchange/package/csv_writer.h"
#include "exchange/package/package_table.h"

namespace sunbreak::exchange {
namespace {

constexpr std::size_t log_values = 8;
constexpr std::array<const char*, log_values> log_names{"time_s",    "light_raw",   "power_w",      "voltage_v",
                                                        "current_a", "apparent_va", "power_factor", "frequency_hz"};

/// A log sample's values in the order of log_names.
std::array<double*, log_values> values_of(LogSample& s) {
  return {&s.time_s,    &s.light_raw,   &s.power_w,      &s.voltage_v,
          &s.current_a, &s.apparent_va, &s.power_factor, &s.frequency_hz};
}

}  // namespace

std::string log_samples_csv(const std::vector<LogPart>& parts) {
  std::string csv = "log_part_id";
  for (const char* name : log_names) csv += std::string(",") + name;
  csv += "\r\n";
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
  PackageTable table("log_sample", member->second);
  const std::size_t part_at = table.at("log_part_id");
  std::array<std::size_t, log_values> places{};
  std::transform(log_names.begin(), log_names.end(), places.begin(), [&](const char* name) { return table.at(name); });
  std::map<Id, std::vector<LogSample>> samples;
  std::map<Id, std::size_t> first_rows;
  while (table.next()) {
    const auto part = value_of_cell(table.cell(part_at), Type::Integer);
    if (!part || !std::holds_alternative<Id>(*part)) table.refuse(part_at);
    first_rows.try_emplace(std::get<Id>(*part), table.row());
    LogSample& s = samples[std::get<Id>(*part)].emplace_back();
    const auto values = values_of(s);
    for (std::size_t i = 0; i < log_values; ++i) {
      const std::string& cell = table.cell(places[i]);
      if (cell.empty()) continue;
      const auto number = parse_number(cell);
      if (!number) table.refuse(places[i]);
      *values[i] = *number;
    }
    if (const auto fault = sample_fault(s))
      throw std::runtime_error(fmt::format("log_sample.csv, row {}: {}", table.row(), *fault));
  }
  for (std::size_t row = 0; row < parts.size(); ++row) {
    LogPart& part = parts[row];
    const auto& own = samples[part.id];
    if (static_cast<int>(own.size()) != part.count)
      throw std::runtime_error(
          fmt::format("log_part.csv, row {}, column count: '{}'; expected {}, as log_sample.csv has", row + 1,
                      part.count, own.size()));
    part.samples = pack_samples(own);
  }
  for (const auto& [id, own] : samples)
    if (std::none_of(parts.begin(), parts.end(), [&](const LogPart& p) { return p.id == id; }))
      throw std::runtime_error(fmt::format(
          "log_sample.csv, row {}, column log_part_id: '{}' is no part of log_part.csv", first_rows.at(id), id));
}

}  // namespace sunbreak::exchange
