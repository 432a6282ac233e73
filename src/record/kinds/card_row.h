#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A stage of growth on the settings card of a test: what it wants, and how the fixture is run for it.
struct CardRow {
  Id id = 0, test_id = 0;
  std::string stage;
  double low_ppfd = 0, high_ppfd = 0, photoperiod_h = 12;
  std::optional<double> height_m, percent;  ///< nothing where no way suits it
  std::optional<double> weeks;
  bool own = false;  ///< height, setting or hours were typed by the tester
  std::optional<Id> configuration_id{};
  bool operator==(const CardRow&) const = default;
};

template <>
struct Described<CardRow> {
  static constexpr Facts facts{.name = "card_row", .since = 7};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &CardRow::test_id, "the test").belongs_to("test");
    columns.add("stage", &CardRow::stage, "crop or stage of growth");
    columns.add("low_ppfd", &CardRow::low_ppfd, "low end of its band").unit("umol/m2/s").between(0, 20000);
    columns.add("high_ppfd", &CardRow::high_ppfd, "high end").unit("umol/m2/s").between(0, 20000);
    columns.add("photoperiod_h", &CardRow::photoperiod_h, "hours of light a day").unit("h").between(0, 24);
    columns.add("height_m", &CardRow::height_m, "hanging height; empty where no way suits the stage")
        .unit("m")
        .between(0.01, 10);
    columns.add("percent", &CardRow::percent, "dimmer setting").unit("%").between(0, 200);
    columns.add("weeks", &CardRow::weeks, "how long the stage lasts").unit("weeks").between(0, 200);
    columns.add("own", &CardRow::own, "height, setting or hours were typed by the tester");
    columns.add("configuration_id", &CardRow::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
