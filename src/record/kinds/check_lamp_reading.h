#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// One reading of a check lamp before a day's work.
struct CheckLampReading {
  Id id = 0, meter_id = 0;
  std::string lamp;  ///< its name, which tells it from other lamps in any lab book
  std::string taken_at;
  std::string light;  ///< at the center and the stations beside it, with a blank between numbers
  std::optional<double> watts{};
  std::string source = "typed";
  std::string notes;
  bool operator==(const CheckLampReading&) const = default;
};

template <>
struct Described<CheckLampReading> {
  static constexpr Facts facts{.name = "check_reading", .since = 12};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("meter_id", &CheckLampReading::meter_id, "the sensor").belongs_to("meter");
    columns.add("lamp", &CheckLampReading::lamp, "name of the check lamp, with its place and setting");
    columns.add("taken_at", &CheckLampReading::taken_at, "when (UTC)").moment();
    columns.add("light", &CheckLampReading::light,
                "PPFD at the center and the stations beside it, as the sensor is calibrated, with a blank between");
    columns.add("watts", &CheckLampReading::watts, "power at the wall plug").unit("W").between(0, 100000);
    columns.add("source", &CheckLampReading::source, "typed, file, live or simulated")
        .one_of({"typed", "file", "live", "simulated"});
    columns.add("notes", &CheckLampReading::notes, "remarks");
  }
};

}  // namespace sunbreak::record
