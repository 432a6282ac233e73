#pragma once

#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// Pairs of readings that two sensors took of the same light, one after the other.
struct SensorComparison {
  Id id = 0, first_meter_id = 0, second_meter_id = 0;
  std::string taken_at;
  std::string first_light, second_light;  ///< pair by pair, with a blank between numbers
  bool operator==(const SensorComparison&) const = default;
};

template <>
struct Described<SensorComparison> {
  static constexpr Facts facts{.name = "sensor_comparison", .since = 13, .published = false};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("first_meter_id", &SensorComparison::first_meter_id, "the sensor that is trusted").refers_to("meter");
    columns.add("second_meter_id", &SensorComparison::second_meter_id, "the one held against it").refers_to("meter");
    columns.add("taken_at", &SensorComparison::taken_at, "when they were kept (UTC)").moment();
    columns.add("first_light", &SensorComparison::first_light,
                "what the first read, as it was calibrated then, pair by pair, with a blank between");
    columns.add("second_light", &SensorComparison::second_light, "what the second read of the same light");
  }
};

}  // namespace sunbreak::record
