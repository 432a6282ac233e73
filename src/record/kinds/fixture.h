#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

struct Fixture {
  Id id = 0;
  std::string name, maker, kind, emitters;
  std::optional<double> width_m, depth_m;
  std::optional<double> emitter_spacing_m;
  std::optional<int> emitters_across, emitters_deep;
  std::optional<double> beam_angle_deg;
  std::string serial;
  std::optional<double> price;
  std::string currency, obtained, interest, notes;
  bool removed = false;
  std::string price_on;                          ///< the day of the price
  std::optional<double> discount_pct, shipping;  ///< off the price, and on top of what is left
  std::string dimmer_steps;                      ///< as core/power/dimmer_steps reads them
  bool operator==(const Fixture&) const = default;
};

template <>
struct Described<Fixture> {
  static constexpr Facts facts{.name = "fixture"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("name", &Fixture::name, "name on the lending card or box");
    columns.add("maker", &Fixture::maker, "maker as stated");
    columns.add("kind", &Fixture::kind, "kind of fixture in the tester's words");
    columns.add("emitters", &Fixture::emitters, "emitters and their layout in the tester's words");
    columns.add("width_m", &Fixture::width_m, "size of one unit along x").unit("m").between(0.005, 20);
    columns.add("depth_m", &Fixture::depth_m, "size of one unit along y").unit("m").between(0.005, 20);
    columns
        .add("emitter_spacing_m", &Fixture::emitter_spacing_m,
             "widest gap between neighboring emitters or bars, middle to middle")
        .unit("m")
        .between(0.001, 20)
        .since(3);
    columns.add("emitters_across", &Fixture::emitters_across, "emitters or bars of a unit along x")
        .between(1, 1000)
        .since(3);
    columns.add("emitters_deep", &Fixture::emitters_deep, "emitters of a unit along y").between(1, 1000).since(3);
    columns
        .add("beam_angle_deg", &Fixture::beam_angle_deg,
             "full angle at which the intensity has halved; 120 without lenses")
        .unit("degrees")
        .between(1, 180)
        .since(3);
    columns.add("serial", &Fixture::serial, "serial number of the unit");
    columns.add("price", &Fixture::price, "price paid or asked, in the currency column's money").between(0, 1e9);
    columns.add("currency", &Fixture::currency, "currency of the price");
    columns.add("obtained", &Fixture::obtained, "how the unit was obtained: bought, lent, given, sample");
    columns.add("interest", &Fixture::interest, "payment or affiliate interest");
    columns.add("notes", &Fixture::notes, "remarks");
    columns.add("removed", &Fixture::removed, "taken off the shelf");
    columns.add("price_on", &Fixture::price_on, "day of the price (ISO 8601 date)").date().since(8);
    columns.add("discount_pct", &Fixture::discount_pct, "taken off the price").unit("%").between(0, 100).since(8);
    columns.add("shipping", &Fixture::shipping, "shipping on top of the price, in its currency")
        .between(0, 1e7)
        .since(8);
    columns
        .add("dimmer_steps", &Fixture::dimmer_steps,
             "where the dimmer can be set: free, a step in %, or its marks (25, 50, 75, 100); empty: whole percents")
        .since(14);
  }
};

}  // namespace sunbreak::record
