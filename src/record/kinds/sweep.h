#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// The readings of all stations at one rung and one stop, with the grid and the sensor correction they were taken with.
struct Sweep {
  Id id = 0, test_id = 0, rung_id = 0, stop_id = 0;
  std::string grid_kind = "cells";
  int columns = 12, rows = 12;
  double margin_x_m = 0, margin_y_m = 0;
  std::string spots;
  double dark_offset = 0, calibration_factor = 1, spectral_factor = 1;
  std::optional<double> power_w;
  std::string notes;
  bool confirms = false;  ///< a few spots that a prediction is held against; no part of what predicts
  std::string control{};  ///< how the fixture was driven
  bool operator==(const Sweep&) const = default;
};

template <>
struct Described<Sweep> {
  static constexpr Facts facts{.name = "sweep"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &Sweep::test_id, "the test").belongs_to("test");
    columns.add("rung_id", &Sweep::rung_id, "the hanging height").refers_to("rung");
    columns.add("stop_id", &Sweep::stop_id, "the dimmer setting").refers_to("stop");
    columns.add("grid_kind", &Sweep::grid_kind, "cells, nodes, inset or spots")
        .one_of({"cells", "nodes", "inset", "spots"});
    columns.add("columns", &Sweep::columns, "stations along x; 0 for spots").between(0, 500);
    columns.add("rows", &Sweep::rows, "stations along y; 0 for spots").between(0, 500);
    columns.add("margin_x_m", &Sweep::margin_x_m, "inset: distance of the outer stations from the left and right walls")
        .unit("m")
        .between(0, 10);
    columns.add("margin_y_m", &Sweep::margin_y_m, "inset: distance from the front and far walls")
        .unit("m")
        .between(0, 10);
    columns.add("spots", &Sweep::spots, "spots: JSON list of {name, x_m, y_m}");
    columns.add("dark_offset", &Sweep::dark_offset, "subtracted from the raw reading").between(-1000, 1000);
    columns.add("calibration_factor", &Sweep::calibration_factor, "multiplies the reading").between(0.1, 10);
    columns.add("spectral_factor", &Sweep::spectral_factor, "multiplies the reading").between(0.1, 10);
    columns.add("power_w", &Sweep::power_w, "power at the wall plug that holds for this sweep")
        .unit("W")
        .between(0, 100000);
    columns.add("notes", &Sweep::notes, "remarks");
    columns.add("confirms", &Sweep::confirms, "a few spots that a prediction is held against").since(7);
    columns.add("control", &Sweep::control, "how the fixture was driven: knob, bypass, controller, fade-in off …")
        .since(8);
  }
};

}  // namespace sunbreak::record
