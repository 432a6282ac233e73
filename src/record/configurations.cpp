#include "record/configurations.h"

#include <algorithm>
#include <unordered_set>

namespace sunbreak::record {
namespace {

using Ids = std::unordered_set<Id>;

template <typename Row>
Ids ids_of(const std::vector<Row>& rows) {
  Ids ids;
  for (const Row& row : rows) ids.insert(row.id);
  return ids;
}

/// Keeps rows whose reference is to one of `kept`.
template <typename Row, typename Reference>
void keep_of(std::vector<Row>& rows, Reference Row::*reference, const Ids& kept) {
  std::erase_if(rows, [&](const Row& row) {
    if constexpr (std::is_same_v<Reference, Id>)
      return !kept.contains(row.*reference);
    else
      return row.*reference && !kept.contains(*(row.*reference));
  });
}

}  // namespace

std::vector<Id> configurations_of(const TestRecord& record) {
  std::vector<Id> ids{0};
  for (const Configuration& c : record.configurations) ids.push_back(c.id);
  return ids;
}

std::string configuration_name(const TestRecord& record, Id configuration_id) {
  for (const Configuration& c : record.configurations)
    if (c.id == configuration_id) return c.name;
  return record.test.as_it_comes.empty() ? "as it comes" : record.test.as_it_comes;
}

void keep_configuration(TestRecord& record, Id wanted) {
  if (std::none_of(record.configurations.begin(), record.configurations.end(),
                   [&](const Configuration& c) { return c.id == wanted; }))
    wanted = 0;
  record.configuration_id = wanted;
  if (record.configurations.empty()) return;
  const auto keep = [wanted](auto& rows) {
    std::erase_if(rows, [wanted](const auto& row) { return row.configuration_id.value_or(0) != wanted; });
  };
  keep(record.rungs);
  keep(record.stops);
  keep(record.stair_stops);
  keep(record.log_parts);
  keep(record.lamp_events);
  keep(record.target_settings);
  keep(record.temperatures);
  keep(record.settlings);
  keep(record.card_rows);
  keep(record.verdict_sentences);
  keep(record.spectra);
  keep_of(record.stair_readings, &StairReading::stair_stop_id, ids_of(record.stair_stops));
  keep_of(record.sweeps, &Sweep::rung_id, ids_of(record.rungs));
  keep_of(record.sweeps, &Sweep::stop_id, ids_of(record.stops));
  const Ids sweeps = ids_of(record.sweeps);
  keep_of(record.readings, &Reading::sweep_id, sweeps);
  keep_of(record.placements, &Placement::sweep_id, sweeps);
  keep_of(record.side_readings, &SideReading::sweep_id, sweeps);
  keep_of(record.pictures, &Picture::sweep_id, sweeps);
  keep_of(record.pictures, &Picture::temperature_id, ids_of(record.temperatures));
  const auto elsewhere = [&](const auto& row) {
    return row.sweep_id ? !sweeps.contains(*row.sweep_id) : row.configuration_id.value_or(0) != wanted;
  };
  std::erase_if(record.wall_readings, elsewhere);
  std::erase_if(record.dismissals, elsewhere);
}

TestRecord of_configuration(const TestRecord& record, Id configuration_id) {
  TestRecord part = record;
  keep_configuration(part, configuration_id);
  return part;
}

std::optional<Id> configuration_of(const TestRecord& record) {
  return record.configuration_id != 0 ? std::optional(record.configuration_id) : std::nullopt;
}

}  // namespace sunbreak::record
