#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

struct Rung {
  Id id = 0, test_id = 0;
  double height_m = 0.45;
  bool extra = false;  ///< not of the plan: there for what confirms a prediction
  std::optional<Id> configuration_id{};
  bool operator==(const Rung&) const = default;
};

template <>
struct Described<Rung> {
  static constexpr Facts facts{.name = "rung", .order = "height_m DESC, id"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Rung::test_id, "the test").belongs_to("test");
    columns.add("height_m", &Rung::height_m, "emitting plane to the sensor's receiving surface")
        .unit("m")
        .between(0.01, 10);
    columns.add("extra", &Rung::extra, "not of the plan: there for a sweep that confirms a prediction").since(7);
    columns.add("configuration_id", &Rung::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
