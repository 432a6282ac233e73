#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// What a wall-plug meter showed when it was written down: by the test's clock, or in the state a sweep was walked in.
/// Light at the reference station may stand beside it.
struct WallReading {
  Id id = 0, test_id = 0;
  std::optional<Id> sweep_id;  ///< none: of the warm-up
  std::optional<double> power_w, voltage_v, current_a, apparent_va, power_factor, frequency_hz, light_raw;
  std::string taken_at;
  std::optional<Id> configuration_id{};
  bool operator==(const WallReading&) const = default;
};

template <>
struct Described<WallReading> {
  static constexpr Facts facts{.name = "wall_reading"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &WallReading::test_id, "the test").belongs_to("test").since(4);
    columns.add("sweep_id", &WallReading::sweep_id, "the sweep; empty: of the warm-up").refers_to("sweep");
    columns.add("power_w", &WallReading::power_w, "real power").unit("W").between(0, 100000);
    columns.add("voltage_v", &WallReading::voltage_v, "voltage").unit("V").between(0, 1000);
    columns.add("current_a", &WallReading::current_a, "current").unit("A").between(0, 1000);
    columns.add("apparent_va", &WallReading::apparent_va, "apparent power").unit("VA").between(0, 100000);
    columns.add("power_factor", &WallReading::power_factor, "power factor").between(0, 2);
    columns.add("frequency_hz", &WallReading::frequency_hz, "frequency").unit("Hz").between(0, 1000);
    columns.add("light_raw", &WallReading::light_raw, "light at the reference station before correction")
        .unit("umol/m2/s")
        .between(-1000, 20000)
        .since(4);
    columns.add("taken_at", &WallReading::taken_at, "when (UTC)").moment();
    columns.add("configuration_id", &WallReading::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
