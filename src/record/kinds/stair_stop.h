#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// One setting of the dimmer on the stair.
struct StairStop {
  Id id = 0, test_id = 0;
  double percent = 100;
  std::optional<double> power_w, power_factor;
  std::string taken_at;
  std::optional<Id> configuration_id{};
  bool operator==(const StairStop&) const = default;
};

template <>
struct Described<StairStop> {
  static constexpr Facts facts{.name = "stair_stop", .since = 4};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &StairStop::test_id, "the test").belongs_to("test");
    columns.add("percent", &StairStop::percent, "dimmer setting [% of the dial]; 0: standby").between(0, 200);
    columns.add("power_w", &StairStop::power_w, "power once it held").unit("W").between(0, 100000);
    columns.add("power_factor", &StairStop::power_factor, "power factor").between(0, 2);
    columns.add("taken_at", &StairStop::taken_at, "when (UTC)").moment();
    columns.add("configuration_id", &StairStop::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
