#pragma once

#include <optional>
#include <string>

#include "core/quantity/lux.h"
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
  /// Walked by a lux meter: calibration_factor is its own factor times this k [umol/m2/s/lx], which holds between these
  /// levels.
  std::optional<double> lux_k{}, lux_k_expanded{}, lux_lowest{}, lux_highest{};
  bool lux_fitted_here = false;  ///< under this very fixture
  /// Brings back what a sensor reads that has moved since it was calibrated, by its check lamp.
  double moved_factor = 1;
  std::optional<double> moved_uncertainty_pct{};
  /// When the watts were read, where they are those of the same setting at another height; empty: with this sweep.
  std::string power_carried_from{};
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
    columns.add("calibration_factor", &Sweep::calibration_factor, "multiplies the reading").between(0.0001, 10);
    columns.add("spectral_factor", &Sweep::spectral_factor, "multiplies the reading").between(0.1, 10);
    columns.add("power_w", &Sweep::power_w, "power at the wall plug that holds for this sweep")
        .unit("W")
        .between(0, 100000);
    columns
        .add("power_carried_from", &Sweep::power_carried_from,
             "when the watts were read, where they are those of the same setting at another height (UTC)")
        .moment()
        .since(14);
    columns.add("notes", &Sweep::notes, "remarks");
    columns.add("confirms", &Sweep::confirms, "a few spots that a prediction is held against").since(7);
    columns.add("control", &Sweep::control, "how the fixture was driven: knob, bypass, controller, fade-in off …")
        .since(8);
    columns
        .add("lux_k", &Sweep::lux_k,
             "walked by a lux meter, whose values this brings to PPFD; it is part of calibration_factor")
        .unit("umol/m2/s/lx")
        .between(0.0001, 1)
        .since(12);
    columns.add("lux_k_expanded", &Sweep::lux_k_expanded, "half width of the interval that holds it in 95 %")
        .unit("umol/m2/s/lx")
        .between(0, 1)
        .since(12);
    columns.add("lux_lowest", &Sweep::lux_lowest, "lowest level that it holds for")
        .unit("lx")
        .between(0, most_lux)
        .since(12);
    columns.add("lux_highest", &Sweep::lux_highest, "highest level").unit("lx").between(0, most_lux).since(12);
    columns.add("lux_fitted_here", &Sweep::lux_fitted_here, "it was found under this very fixture").since(12);
    columns
        .add("moved_factor", &Sweep::moved_factor,
             "multiplies the reading: brings back a sensor that has moved, by its check lamp")
        .between(0.5, 2)
        .since(12);
    columns.add("moved_uncertainty_pct", &Sweep::moved_uncertainty_pct, "relative standard uncertainty of that factor")
        .unit("%")
        .between(0, 100)
        .since(12);
  }
};

}  // namespace sunbreak::record
