#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// Something that begins the wait for light and watts anew, by the test's clock.
struct LampEvent {
  Id id = 0, test_id = 0;
  std::string kind = "on";  ///< on, off or stop
  std::optional<double> percent;
  std::string at;
  std::optional<Id> configuration_id{};
  bool operator==(const LampEvent&) const = default;
};

template <>
struct Described<LampEvent> {
  static constexpr Facts facts{.name = "lamp_event", .since = 4, .order = "at, id"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &LampEvent::test_id, "the test").belongs_to("test");
    columns.add("kind", &LampEvent::kind, "on, off, or stop (the dimmer was set)").one_of({"on", "off", "stop"});
    columns.add("percent", &LampEvent::percent, "dimmer setting [% of the dial]").between(0, 200);
    columns.add("at", &LampEvent::at, "when (UTC)").moment();
    columns.add("configuration_id", &LampEvent::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
