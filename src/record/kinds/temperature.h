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
  }
};

}  // namespace sunbreak::record
