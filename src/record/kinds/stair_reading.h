#pragma once

#include <optional>
#include <string>

#include "core/quantity/lux.h"
#include "record/kinds/description.h"

namespace sunbreak::record {

/// Light at one station while the dimmer stood at a stop of the stair.
struct StairReading {
  Id id = 0, stair_stop_id = 0;
  int station = 0;
  double raw = 0;
  std::string source;
  int samples = 1;
  std::optional<double> spread{};
  bool operator==(const StairReading&) const = default;
};

template <>
struct Described<StairReading> {
  static constexpr Facts facts{.name = "stair_reading", .since = 4};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("stair_stop_id", &StairReading::stair_stop_id, "the setting").belongs_to("stair_stop");
    columns.add("station", &StairReading::station, "station index in the plan's grid").between(0, 249999);
    columns.add("raw", &StairReading::raw, "value as read before correction; lx where it is of a lux meter")
        .unit("umol/m2/s")
        .between(-1000, most_lux);
    columns.add("source", &StairReading::source, "typed, live or simulated").one_of({"typed", "live", "simulated"});
    columns.add("samples", &StairReading::samples, "sensor values averaged into raw").between(1, 100000);
    columns.add("spread", &StairReading::spread, "their standard deviation, in the unit of raw").between(0, 20000);
  }
};

}  // namespace sunbreak::record
