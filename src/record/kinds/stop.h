#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

struct Stop {
  Id id = 0, test_id = 0;
  double percent = 100;
  bool extra = false;  ///< not of the plan: there for what confirms a prediction
  std::optional<Id> configuration_id{};
  bool operator==(const Stop&) const = default;
};

template <>
struct Described<Stop> {
  static constexpr Facts facts{.name = "stop", .order = "percent DESC, id"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Stop::test_id, "the test").belongs_to("test");
    columns.add("percent", &Stop::percent, "dimmer setting [% of the dial]").between(0, 200);
    columns.add("extra", &Stop::extra, "not of the plan: there for a sweep that confirms a prediction").since(7);
    columns.add("configuration_id", &Stop::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
