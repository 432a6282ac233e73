#pragma once

#include <optional>
#include <string>

#include "core/quantity/lux.h"
#include "record/kinds/description.h"

namespace sunbreak::record {

/// A reading beside the sweep's own: of the reference station, for drift, or of any station again, for repeatability.
struct SideReading {
  Id id = 0, sweep_id = 0;
  int station = 0;
  std::string purpose;  ///< reference or repeat
  double raw = 0;
  std::string source, taken_at;
  int samples = 1;
  std::optional<double> spread{};
  bool operator==(const SideReading&) const = default;
};

template <>
struct Described<SideReading> {
  static constexpr Facts facts{.name = "side_reading", .since = 3};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("sweep_id", &SideReading::sweep_id, "the sweep").belongs_to("sweep");
    columns.add("station", &SideReading::station, "station index").between(0, 249999);
    columns.add("purpose", &SideReading::purpose, "reference (for drift) or repeat (for repeatability)")
        .one_of({"reference", "repeat"});
    columns.add("raw", &SideReading::raw, "value as read before correction; lx where it is of a lux meter")
        .unit("umol/m2/s")
        .between(-1000, most_lux);
    columns.add("source", &SideReading::source, "typed, live or simulated").one_of({"typed", "live", "simulated"});
    columns.add("taken_at", &SideReading::taken_at, "when (UTC)").moment();
    columns.add("samples", &SideReading::samples, "sensor values averaged into raw").between(1, 100000);
    columns.add("spread", &SideReading::spread, "their standard deviation, in the unit of raw").between(0, 20000);
  }
};

}  // namespace sunbreak::record
