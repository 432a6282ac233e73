#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// Which reading counts at a station; none where the station is declared missing.
struct Placement {
  Id id = 0, sweep_id = 0;
  int station = 0;
  std::optional<Id> reading_id;
  std::string note;
  bool operator==(const Placement&) const = default;
};

template <>
struct Described<Placement> {
  static constexpr Facts facts{.name = "placement"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("sweep_id", &Placement::sweep_id, "the sweep").belongs_to("sweep");
    columns.add("station", &Placement::station, "station index").between(0, 249999);
    columns.add("reading_id", &Placement::reading_id, "the reading that counts; empty: declared missing")
        .refers_to("reading");
    columns.add("note", &Placement::note, "why");
  }
};

}  // namespace sunbreak::record
