#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// One fixture on one bench: the plan and its disclosure. The grid here is the plan's; each sweep keeps its own copy.
struct Test {
  Test();
  ~Test();
  Test(const Test&);
  Test(Test&&) noexcept;
  Test& operator=(const Test&);
  Test& operator=(Test&&) noexcept;
  bool operator==(const Test&) const;

  Id id = 0, fixture_id = 0, bench_id = 0;
  std::optional<Id> sensor_id, wall_meter_id;
  std::string name;
  std::string grid_kind = "cells";
  int columns = 12, rows = 12;
  double margin_x_m = 0, margin_y_m = 0;
  std::string spots;  ///< JSON list of {name, x_m, y_m}, for a spot grid
  double photoperiod_h = 12;
  std::string target_name = "flowering & fruiting";
  double target_low_ppfd = 555, target_high_ppfd = 925;
  bool target_by_daily_light = false;  ///< the band is one of daily light: it moves with the photoperiod
  std::string door, datum;
  std::string tape_from = "sensor";  ///< sensor, floor or canopy
  std::optional<double> canopy_height_m;
  std::string walk_order = "far to door";  ///< as core's WalkOrder names it
  bool opening_probe = true;
  int reference_every = 24, samples_a_reading = 1;
  double seconds_a_reading = 10, warm_up_min = 30;
  std::string checked_level, checked_center, checked_height, checked_fans;  ///< yes, no, empty: not stated
  std::string tested_by, tested_on;
  std::optional<double> mains_v, mains_hz, circuit_a, tariff_per_kwh;
  std::string tariff_currency = "EUR";
  /// Standard uncertainties as the tester states them; the usual ones where not stated.
  std::optional<double> height_uncertainty_m, position_uncertainty_m, edge_uncertainty_m, spectral_uncertainty_pct,
      cosine_uncertainty_pct;
  std::string evenness_lead = "lowest_over_mean";  ///< the figure that stands for evenness where one has to
  /// How the heights were chosen: ladder, maker, center or target; empty: not stated.
  std::string height_rule;
  std::optional<double> height_rule_ppfd;  ///< that the center was to read
  std::string notes, created_at;
  bool simulated = false, removed = false;
  /// How the units of the fixture hang: a lattice about the middle, turned as a whole, its outer columns turned inward.
  /// A tilted unit's height is that of its middle.
  int unit_columns = 1, unit_rows = 1;
  std::optional<double> unit_spacing_x_m, unit_spacing_y_m, unit_turn_deg, unit_tilt_deg;
  std::string control;      ///< how the fixture is driven by now; sweeps keep what held for them
  std::string as_it_comes;  ///< what the configuration without a row of its own is called
  std::optional<double> hours_run;
  std::optional<double> surface_limit_c, canopy_rise_limit_c;
  std::string mark;       ///< by which a retest knows it, in any lab book; given when first needed
  std::string retest_of;  ///< the mark of the earlier test
  std::string retest_unit;
  std::string light_class{};          ///< white, white with red, red and blue, other; empty: not stated
  std::optional<Id> lux_factor_id{};  ///< of the lux meter that it is walked by
  /// Where the package that it came by was not as its writer left it: what differed. It goes wherever the test goes.
  std::string altered{};
};

template <>
struct Described<Test> {
  static constexpr Facts facts{.name = "test"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("fixture_id", &Test::fixture_id, "the fixture under test").refers_to("fixture");
    columns.add("bench_id", &Test::bench_id, "the bench it hangs in").refers_to("bench");
    columns.add("sensor_id", &Test::sensor_id, "the quantum sensor").refers_to("meter");
    columns.add("wall_meter_id", &Test::wall_meter_id, "the wall meter").refers_to("meter");
    columns.add("name", &Test::name, "name of the test");
    columns.add("grid_kind", &Test::grid_kind, "cells, nodes, inset or spots")
        .one_of({"cells", "nodes", "inset", "spots"});
    columns.add("columns", &Test::columns, "stations along x; 0 for spots").between(0, 500);
    columns.add("rows", &Test::rows, "stations along y; 0 for spots").between(0, 500);
    columns.add("margin_x_m", &Test::margin_x_m, "inset: distance of the outer stations from the left and right walls")
        .unit("m")
        .between(0, 10);
    columns.add("margin_y_m", &Test::margin_y_m, "inset: distance from the front and far walls")
        .unit("m")
        .between(0, 10);
    columns.add("spots", &Test::spots, "spots: JSON list of {name, x_m, y_m}");
    columns.add("photoperiod_h", &Test::photoperiod_h, "hours of light a day").unit("h").between(0, 24);
    columns.add("target_name", &Test::target_name, "crop target");
    columns.add("target_low_ppfd", &Test::target_low_ppfd, "low end of the target's band")
        .unit("umol/m2/s")
        .between(0, 20000);
    columns.add("target_high_ppfd", &Test::target_high_ppfd, "high end of the target's band")
        .unit("umol/m2/s")
        .between(0, 20000);
    columns.add("door", &Test::door, "door while reading: closed or open").one_of({"closed", "open"});
    columns.add("datum", &Test::datum, "what heights are measured from: diodes, lens or lamp underside");
    columns.add("tape_from", &Test::tape_from, "where the tape for heights ends: sensor, floor or canopy")
        .one_of({"sensor", "floor", "canopy"})
        .since(3);
    columns.add("canopy_height_m", &Test::canopy_height_m, "height of the pretend canopy over the floor")
        .unit("m")
        .between(0, 10)
        .since(3);
    columns.add("walk_order", &Test::walk_order, "far to door, door to far or center outward")
        .one_of({"far to door", "door to far", "center outward"})
        .since(3);
    columns.add("opening_probe", &Test::opening_probe, "center and corners are read before the rest").since(3, false);
    columns
        .add("reference_every", &Test::reference_every,
             "the reference station is read again after so many readings; 0: never")
        .between(0, 10000)
        .since(3, 0);
    columns.add("samples_a_reading", &Test::samples_a_reading, "sensor values averaged into one reading")
        .between(1, 1000)
        .since(3);
    columns.add("seconds_a_reading", &Test::seconds_a_reading, "time planned for one station")
        .unit("s")
        .between(0, 3600)
        .since(3);
    columns.add("warm_up_min", &Test::warm_up_min, "time planned for warming up").unit("min").between(0, 1440).since(3);
    columns.add("checked_level", &Test::checked_level, "hung level, by an instrument: yes or no")
        .one_of({"yes", "no"})
        .since(3);
    columns.add("checked_center", &Test::checked_center, "hung over the middle, measured: yes or no")
        .one_of({"yes", "no"})
        .since(3);
    columns.add("checked_height", &Test::checked_height, "height measured at all corners: yes or no")
        .one_of({"yes", "no"})
        .since(3);
    columns.add("checked_fans", &Test::checked_fans, "fans running as in use: yes or no")
        .one_of({"yes", "no"})
        .since(3);
    columns.add("tested_by", &Test::tested_by, "who measured");
    columns.add("tested_on", &Test::tested_on, "when (ISO 8601 date)").date();
    columns.add("mains_v", &Test::mains_v, "mains voltage").unit("V").between(1, 1000);
    columns.add("mains_hz", &Test::mains_hz, "mains frequency").unit("Hz").between(0, 1000);
    columns.add("circuit_a", &Test::circuit_a, "rating of the circuit it is plugged into")
        .unit("A")
        .between(0.1, 1000)
        .since(4);
    columns.add("tariff_per_kwh", &Test::tariff_per_kwh, "price of energy, per kWh").between(0, 1e6).since(4);
    columns.add("tariff_currency", &Test::tariff_currency, "currency of that price").since(4);
    columns
        .add("target_by_daily_light", &Test::target_by_daily_light,
             "the target's band is one of daily light and moves with the photoperiod")
        .since(5);
    columns.add("height_uncertainty_m", &Test::height_uncertainty_m, "standard uncertainty of the heights")
        .unit("m")
        .between(0, 1)
        .since(5);
    columns
        .add("position_uncertainty_m", &Test::position_uncertainty_m,
             "standard uncertainty of a station's place along each axis")
        .unit("m")
        .between(0, 1)
        .since(5);
    columns
        .add("edge_uncertainty_m", &Test::edge_uncertainty_m, "standard uncertainty of the footprint's width and depth")
        .unit("m")
        .between(0, 1)
        .since(5);
    columns
        .add("spectral_uncertainty_pct", &Test::spectral_uncertainty_pct,
             "standard uncertainty of the sensor's spectral response")
        .unit("%")
        .between(0, 100)
        .since(5);
    columns
        .add("cosine_uncertainty_pct", &Test::cosine_uncertainty_pct,
             "standard uncertainty of the sensor's cosine response at the lowest angles")
        .unit("%")
        .between(0, 100)
        .since(5);
    columns.add("notes", &Test::notes, "remarks");
    columns.add("created_at", &Test::created_at, "when the test was set up (UTC)").moment();
    columns.add("evenness_lead", &Test::evenness_lead, "the figure that leads among those of evenness")
        .one_of({"lowest_over_mean", "lowest_over_highest", "highest_over_lowest", "p5_over_mean", "cv",
                 "center_minus_corners_ppfd"})
        .since(6);
    columns
        .add("height_rule", &Test::height_rule,
             "how the heights were chosen: a fixed ladder, the maker's, center reads a PPFD, best for a target")
        .one_of({"ladder", "maker", "center", "target"})
        .since(7);
    columns.add("height_rule_ppfd", &Test::height_rule_ppfd, "the PPFD that the center was to read")
        .unit("umol/m2/s")
        .between(0, 20000)
        .since(7);
    columns.add("simulated", &Test::simulated, "readings come from a simulated bench").since(2);
    columns.add("removed", &Test::removed, "taken off the shelf");
    columns.add("unit_columns", &Test::unit_columns, "like units hung side by side along x as one fixture")
        .between(1, 100)
        .since(8);
    columns.add("unit_rows", &Test::unit_rows, "rows of them along y").between(1, 100).since(8);
    columns.add("unit_spacing_x_m", &Test::unit_spacing_x_m, "middle to middle of units along x")
        .unit("m")
        .between(0.005, 20)
        .since(8);
    columns.add("unit_spacing_y_m", &Test::unit_spacing_y_m, "middle to middle of units along y")
        .unit("m")
        .between(0.005, 20)
        .since(8);
    columns
        .add("unit_turn_deg", &Test::unit_turn_deg, "all units turned about the vertical, counterclockwise from above")
        .unit("degrees")
        .between(-180, 180)
        .since(8);
    columns
        .add("unit_tilt_deg", &Test::unit_tilt_deg,
             "outer units turned inward by; their height is that of their middle")
        .unit("degrees")
        .between(-90, 90)
        .since(8);
    columns.add("control", &Test::control, "how the fixture is driven: knob, bypass, controller, fade-in off …")
        .since(8);
    columns
        .add("as_it_comes", &Test::as_it_comes,
             "name of the configuration that rows without a configuration_id are of; empty: as it comes")
        .since(8);
    columns.add("hours_run", &Test::hours_run, "hours the unit or its lamps had run when it was tested")
        .unit("h")
        .between(0, 1e6)
        .since(8);
    columns.add("surface_limit_c", &Test::surface_limit_c, "hottest that the tester lets a surface be")
        .unit("deg C")
        .between(0, 300)
        .since(8);
    columns
        .add("canopy_rise_limit_c", &Test::canopy_rise_limit_c, "most that the tester lets the canopy be over the air")
        .unit("K")
        .between(0, 100)
        .since(8);
    columns.add("mark", &Test::mark, "32 hexadecimal digits by which a retest knows it; empty: none gave it one")
        .since(8);
    columns.add("retest_of", &Test::retest_of, "the mark of the test that it repeats").since(8);
    columns.add("retest_unit", &Test::retest_unit, "whether that was the same unit or another of its model")
        .one_of({"same", "another"})
        .since(8);
    columns.add("light_class", &Test::light_class, "what its light is made of, in a word")
        .one_of({"white", "white with red", "red and blue", "other"})
        .since(12);
    columns.add("lux_factor_id", &Test::lux_factor_id, "the factor of the lux meter that it is walked by")
        .refers_to("lux_factor")
        .since(12);
    columns
        .add("altered", &Test::altered,
             "what differed in the package that the test came by from what its writer left; empty where nothing did")
        .since(16);
  }
};

}  // namespace sunbreak::record
