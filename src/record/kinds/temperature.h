#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A surface temperature as it was taken.
struct Temperature {
  Id id = 0, test_id = 0;
  std::string place;
  std::string method = "contact";  ///< infrared, camera or contact
  double read_c = 0;
  std::optional<double> emissivity_set, emissivity_true, reflected_c;
  bool bare_metal = false;
  std::string taken_at, notes;
  std::optional<Id> configuration_id{};
  std::optional<double> height_m{}, percent{};     ///< the state it was taken in
  std::optional<double> hottest_c{}, coldest_c{};  ///< of a thermal picture, as read
  std::string material{};                          ///< of a swatch of canopy
  bool operator==(const Temperature&) const = default;
};

template <>
struct Described<Temperature> {
  static constexpr Facts facts{.name = "temperature", .since = 4};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Temperature::test_id, "the test").belongs_to("test");
    columns.add("place", &Temperature::place, "what was measured; 'air' for the air around the fixture");
    columns.add("method", &Temperature::method, "infrared, camera or contact")
        .one_of({"infrared", "camera", "contact"});
    columns.add("read_c", &Temperature::read_c, "temperature as read").unit("deg C").between(-60, 500);
    columns.add("emissivity_set", &Temperature::emissivity_set, "emissivity the instrument was set to")
        .between(0.01, 1);
    columns.add("emissivity_true", &Temperature::emissivity_true, "emissivity of the surface").between(0.01, 1);
    columns.add("reflected_c", &Temperature::reflected_c, "temperature of what the surface mirrors")
        .unit("deg C")
        .between(-60, 500);
    columns.add("bare_metal", &Temperature::bare_metal, "bare or polished metal");
    columns.add("taken_at", &Temperature::taken_at, "when (UTC)").moment();
    columns.add("notes", &Temperature::notes, "remarks");
    columns.add("configuration_id", &Temperature::configuration_id, "the configuration; empty: the fixture as it comes")
        .refers_to("configuration")
        .since(8);
    columns.add("height_m", &Temperature::height_m, "hanging height of the fixture")
        .unit("m")
        .between(0.01, 10)
        .since(8);
    columns.add("percent", &Temperature::percent, "dimmer setting [% of the dial]").between(0, 200).since(8);
    columns.add("hottest_c", &Temperature::hottest_c, "hottest place of a thermal picture, as read")
        .unit("deg C")
        .between(-60, 1200)
        .since(8);
    columns.add("coldest_c", &Temperature::coldest_c, "coldest place of it").unit("deg C").between(-60, 1200).since(8);
    columns
        .add("material", &Temperature::material,
             "what a swatch of canopy is of: white, black, green, wood, film, leaf …")
        .since(8);
  }
};

}  // namespace sunbreak::record
