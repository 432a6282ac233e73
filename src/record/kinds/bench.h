#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

struct Bench {
  Id id = 0;
  std::string name;
  double width_m = 1.2, depth_m = 1.2;
  std::optional<double> height_m;
  std::string wall_left, wall_right, wall_front, wall_back;  ///< reflective, white, dark, open
  std::string notes;
  bool removed = false;
  std::string ceiling, floor;  ///< reflective, white, dark, and a ceiling open; empty: not stated
  bool operator==(const Bench&) const = default;
};

template <>
struct Described<Bench> {
  static constexpr Facts facts{.name = "bench"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("name", &Bench::name, "name of the test space");
    columns.add("width_m", &Bench::width_m, "footprint along x, left to right seen from the door")
        .unit("m")
        .between(0.05, 20);
    columns.add("depth_m", &Bench::depth_m, "footprint along y, away from the door").unit("m").between(0.05, 20);
    columns.add("height_m", &Bench::height_m, "height available").unit("m").between(0.01, 10);
    columns.add("wall_left", &Bench::wall_left, "left wall: reflective, white, dark or open")
        .one_of({"reflective", "white", "dark", "open"});
    columns.add("wall_right", &Bench::wall_right, "right wall").one_of({"reflective", "white", "dark", "open"});
    columns.add("wall_front", &Bench::wall_front, "front wall, with the door")
        .one_of({"reflective", "white", "dark", "open"});
    columns.add("wall_back", &Bench::wall_back, "back wall").one_of({"reflective", "white", "dark", "open"});
    columns.add("notes", &Bench::notes, "remarks");
    columns.add("removed", &Bench::removed, "taken off the shelf");
    columns.add("ceiling", &Bench::ceiling, "what is over the fixture: reflective, white, dark or open")
        .one_of({"reflective", "white", "dark", "open"})
        .since(8);
    columns.add("floor", &Bench::floor, "what the stations lie on: reflective, white or dark")
        .one_of({"reflective", "white", "dark"})
        .since(8);
  }
};

}  // namespace sunbreak::record
