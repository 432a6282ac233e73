#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A check that the tester looked at and set aside, with the reason that the report prints.
struct Dismissal {
  Id id = 0, test_id = 0;
  std::optional<Id> sweep_id;  ///< none: about the test as a whole
  std::string rule, stations;
  std::string saw, reason, at;
  std::optional<Id> configuration_id{};
  bool operator==(const Dismissal&) const = default;
};

template <>
struct Described<Dismissal> {
  static constexpr Facts facts{.name = "dismissal", .since = 3};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Dismissal::test_id, "the test").belongs_to("test");
    columns.add("sweep_id", &Dismissal::sweep_id, "the sweep; empty: the test as a whole").refers_to("sweep");
    columns.add("rule", &Dismissal::rule, "the rule's name");
    columns.add("stations", &Dismissal::stations, "station indices it is about, with blanks between");
    columns.add("saw", &Dismissal::saw, "what it saw");
    columns.add("reason", &Dismissal::reason, "why it was set aside");
    columns.add("at", &Dismissal::at, "when (UTC)").moment();
    columns.add("configuration_id", &Dismissal::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
