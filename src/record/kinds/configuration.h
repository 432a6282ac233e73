#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A state of the fixture that was tested beside the one it comes in: bars added, parts unplugged, other tubes. What
/// names none is of the fixture as it comes.
struct Configuration {
  Id id = 0, test_id = 0;
  std::string name, notes;
  bool operator==(const Configuration&) const = default;
};

template <>
struct Described<Configuration> {
  static constexpr Facts facts{.name = "configuration", .since = 8};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Configuration::test_id, "the test").belongs_to("test");
    columns.add("name", &Configuration::name, "such as: two bars added");
    columns.add("notes", &Configuration::notes, "remarks");
  }
};

}  // namespace sunbreak::record
