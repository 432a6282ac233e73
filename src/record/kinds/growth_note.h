#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// What the tester saw of what grew under the fixture.
struct GrowthNote {
  Id id = 0, test_id = 0;
  std::string noted_on, words;
  bool operator==(const GrowthNote&) const = default;
};

template <>
struct Described<GrowthNote> {
  static constexpr Facts facts{.name = "growth_note", .since = 8, .order = "noted_on, id"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &GrowthNote::test_id, "the test").belongs_to("test");
    columns.add("noted_on", &GrowthNote::noted_on, "day (ISO 8601 date)").date();
    columns.add("words", &GrowthNote::words, "what was seen");
  }
};

}  // namespace sunbreak::record
