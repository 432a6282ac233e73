#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// How a tester asks how to run the fixture of a test: one for each at most. The target is the test's own.
struct Settling {
  Id id = 0, test_id = 0;
  std::string rule = "edge";  ///< as core/figures/serving_rule writes it
  double sure_pct = 50;
  /// The area asked about; the whole one where not stated.
  std::optional<double> area_left_m, area_front_m, area_width_m, area_depth_m;
  std::optional<double> min_height_m, max_height_m, max_power_w, max_ppfd;
  std::string card_list, card_policy = "fewest watts";
  std::optional<Id> configuration_id{};
  bool beyond_walked = false;
  bool operator==(const Settling&) const = default;
};

template <>
struct Described<Settling> {
  static constexpr Facts facts{.name = "settling", .since = 7};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Settling::test_id, "the test").belongs_to("test");
    columns.add("rule", &Settling::rule,
                "when a target is met: edge, every, share:PERCENT, mean, corners:PPFD or center:PPFD");
    columns.add("sure_pct", &Settling::sure_pct, "the least chance that an answer holds").unit("%").between(1, 99);
    columns.add("area_left_m", &Settling::area_left_m, "the area asked about, from the left; the whole one where empty")
        .unit("m")
        .between(0, 20);
    columns.add("area_front_m", &Settling::area_front_m, "from the front").unit("m").between(0, 20);
    columns.add("area_width_m", &Settling::area_width_m, "its width").unit("m").between(0.05, 20);
    columns.add("area_depth_m", &Settling::area_depth_m, "its depth").unit("m").between(0.05, 20);
    columns.add("min_height_m", &Settling::min_height_m, "clearance over the canopy").unit("m").between(0.01, 10);
    columns.add("max_height_m", &Settling::max_height_m, "highest hanging height there is room for")
        .unit("m")
        .between(0.01, 10);
    columns.add("max_power_w", &Settling::max_power_w, "most power at the wall plug").unit("W").between(0, 100000);
    columns.add("max_ppfd", &Settling::max_ppfd, "highest PPFD allowed anywhere").unit("umol/m2/s").between(0, 20000);
    columns.add("card_list", &Settling::card_list, "the list of targets that the settings card has its stages from");
    columns.add("card_policy", &Settling::card_policy, "by what the card chooses")
        .one_of({"fewest watts", "widest", "most even", "one height"});
    columns.add("configuration_id", &Settling::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
    columns
        .add("beyond_walked", &Settling::beyond_walked,
             "answers may leave the walked heights and come nearer than the gaps between emitters allow")
        .since(14);
  }
};

}  // namespace sunbreak::record
