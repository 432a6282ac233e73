#pragma once

#include <optional>
#include <string>

#include "core/quantity/lux.h"
#include "record/kinds/description.h"

namespace sunbreak::record {

/// Watts at which a place reads what a crop asks for, found by turning the dimmer.
struct TargetSetting {
  Id id = 0, test_id = 0;
  std::string target_name, place;
  double wanted_ppfd = 0;
  std::optional<double> height_m, percent;
  double raw = 0;
  std::optional<double> power_w;
  std::string taken_at;
  std::optional<Id> configuration_id{};
  bool operator==(const TargetSetting&) const = default;
};

template <>
struct Described<TargetSetting> {
  static constexpr Facts facts{.name = "target_setting", .since = 4};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &TargetSetting::test_id, "the test").belongs_to("test");
    columns.add("target_name", &TargetSetting::target_name, "crop target");
    columns.add("place", &TargetSetting::place, "where the light was read: corner, edge or center");
    columns.add("wanted_ppfd", &TargetSetting::wanted_ppfd, "PPFD asked for there").unit("umol/m2/s").between(0, 20000);
    columns.add("height_m", &TargetSetting::height_m, "hanging height").unit("m").between(0.01, 10);
    columns.add("percent", &TargetSetting::percent, "what the dial shows").unit("%").between(0, 200);
    columns.add("raw", &TargetSetting::raw, "value as read before correction; lx where it is of a lux meter")
        .unit("umol/m2/s")
        .between(-1000, most_lux);
    columns.add("power_w", &TargetSetting::power_w, "power at the wall plug").unit("W").between(0, 100000);
    columns.add("taken_at", &TargetSetting::taken_at, "when (UTC)").moment();
    columns
        .add("configuration_id", &TargetSetting::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
  }
};

}  // namespace sunbreak::record
