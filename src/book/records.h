#pragma once

#include <vector>

#include "book/power_records.h"
#include "book/record_table.h"
#include "book/target_records.h"

/// The rows about fixtures, benches, plans and readings.
namespace sunbreak::book {

struct Fixture {
  Id id = 0;
  std::string name, maker, kind, emitters;
  std::optional<double> width_m, depth_m;
  int units = 1;
  std::optional<double> unit_spacing_m, unit_tilt_deg, emitter_spacing_m;
  std::optional<int> emitters_across, emitters_deep;
  std::optional<double> beam_angle_deg;
  std::string serial;
  std::optional<double> price;
  std::string currency, obtained, interest, notes;
  bool removed = false;
  bool operator==(const Fixture&) const = default;
};
template <>
struct Table<Fixture> {
  static constexpr const char* name = "fixture";
  static constexpr auto columns =
      std::tuple{Column{"name", &Fixture::name, "name on the lending card or box"},
                 Column{"maker", &Fixture::maker, "maker as stated"},
                 Column{"kind", &Fixture::kind, "kind of fixture in the tester's words"},
                 Column{"emitters", &Fixture::emitters, "emitters and their layout in the tester's words"},
                 Column{"width_m", &Fixture::width_m, "size of one unit along x [m]"},
                 Column{"depth_m", &Fixture::depth_m, "size of one unit along y [m]"},
                 Column{"units", &Fixture::units, "like units hung side by side along x as one fixture"},
                 Column{"unit_spacing_m", &Fixture::unit_spacing_m, "middle to middle of neighboring units [m]"},
                 Column{"unit_tilt_deg", &Fixture::unit_tilt_deg, "outer units turned inward by [degrees]"},
                 Column{"emitter_spacing_m", &Fixture::emitter_spacing_m,
                        "widest gap between neighboring emitters or bars, middle to middle [m]"},
                 Column{"emitters_across", &Fixture::emitters_across, "emitters or bars of a unit along x"},
                 Column{"emitters_deep", &Fixture::emitters_deep, "emitters of a unit along y"},
                 Column{"beam_angle_deg", &Fixture::beam_angle_deg,
                        "full angle at which the intensity has halved [degrees]; 120 without lenses"},
                 Column{"serial", &Fixture::serial, "serial number of the unit"},
                 Column{"price", &Fixture::price, "price paid or asked, in the currency column's money"},
                 Column{"currency", &Fixture::currency, "currency of the price"},
                 Column{"obtained", &Fixture::obtained, "how the unit was obtained: bought, lent, given, sample"},
                 Column{"interest", &Fixture::interest, "payment or affiliate interest"},
                 Column{"notes", &Fixture::notes, "remarks"},
                 Column{"removed", &Fixture::removed, "taken off the shelf"}};
};

struct Claim {
  Id id = 0, fixture_id = 0;
  std::string kind;  ///< power_w, ppf_umol_s, efficacy_umol_j, coverage, height_m, dimming_range, equivalent
  std::optional<double> value;
  std::string words;
  bool operator==(const Claim&) const = default;
};
template <>
struct Table<Claim> {
  static constexpr const char* name = "claim";
  static constexpr auto columns =
      std::tuple{Column{"fixture_id", &Claim::fixture_id, "the fixture it is made for"},
                 Column{"kind", &Claim::kind,
                        "power_w, ppf_umol_s, efficacy_umol_j, coverage, height_m, dimming_range or equivalent"},
                 Column{"value", &Claim::value, "the figure claimed, in the unit its kind names"},
                 Column{"words", &Claim::words, "the claim in words"}};
};

struct Bench {
  Id id = 0;
  std::string name;
  double width_m = 1.2, depth_m = 1.2;
  std::optional<double> height_m;
  std::string wall_left, wall_right, wall_front, wall_back;  ///< reflective, white, dark, open
  std::string notes;
  bool removed = false;
  bool operator==(const Bench&) const = default;
};
template <>
struct Table<Bench> {
  static constexpr const char* name = "bench";
  static constexpr auto columns =
      std::tuple{Column{"name", &Bench::name, "name of the test space"},
                 Column{"width_m", &Bench::width_m, "footprint along x, left to right seen from the door [m]"},
                 Column{"depth_m", &Bench::depth_m, "footprint along y, away from the door [m]"},
                 Column{"height_m", &Bench::height_m, "height available [m]"},
                 Column{"wall_left", &Bench::wall_left, "left wall: reflective, white, dark or open"},
                 Column{"wall_right", &Bench::wall_right, "right wall"},
                 Column{"wall_front", &Bench::wall_front, "front wall, with the door"},
                 Column{"wall_back", &Bench::wall_back, "back wall"},
                 Column{"notes", &Bench::notes, "remarks"},
                 Column{"removed", &Bench::removed, "taken off the shelf"}};
};

struct Meter {
  Id id = 0;
  std::string kind = "quantum";  ///< quantum or wall
  std::string name, calibrated_on;
  double factor = 1, dark_offset = 0;
  std::optional<double> uncertainty_pct, range_max, receiving_height_m, closest_approach_m;
  std::string notes;
  bool removed = false;
  bool operator==(const Meter&) const = default;
};
template <>
struct Table<Meter> {
  static constexpr const char* name = "meter";
  static constexpr auto columns = std::tuple{
      Column{"kind", &Meter::kind, "quantum (light sensor) or wall (plug-in power meter)"},
      Column{"name", &Meter::name, "name of the meter"},
      Column{"calibrated_on", &Meter::calibrated_on, "date of the last calibration (ISO 8601)"},
      Column{"factor", &Meter::factor, "calibration factor: corrected = (raw - dark) * factor"},
      Column{"dark_offset", &Meter::dark_offset, "raw reading in the dark"},
      Column{"uncertainty_pct", &Meter::uncertainty_pct, "relative standard uncertainty [%]"},
      Column{"range_max", &Meter::range_max, "upper end of the range, in the meter's unit"},
      Column{"receiving_height_m", &Meter::receiving_height_m, "height of the receiving surface over its foot [m]"},
      Column{"closest_approach_m", &Meter::closest_approach_m, "nearest it gets to a wall [m]"},
      Column{"notes", &Meter::notes, "remarks"},
      Column{"removed", &Meter::removed, "taken off the shelf"}};
};

/// One fixture on one bench: the plan and its disclosure. The grid here is the plan's; each sweep keeps its own copy.
struct Test {
  Id id = 0, fixture_id = 0, bench_id = 0;
  std::optional<Id> sensor_id, wall_meter_id;
  std::string name;
  std::string grid_kind = "cells";
  int columns = 12, rows = 12;
  double margin_x_m = 0, margin_y_m = 0;
  std::string spots;  ///< JSON list of {name, x_m, y_m}, for a spot grid
  double photoperiod_h = 12;
  std::string target_name = "flowering & fruiting";
  double target_low_ppfd = 600, target_high_ppfd = 1000;
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
  std::string notes, created_at;
  bool simulated = false, removed = false;
  bool operator==(const Test&) const = default;
};
template <>
struct Table<Test> {
  static constexpr const char* name = "test";
  static constexpr auto columns =
      std::tuple{Column{"fixture_id", &Test::fixture_id, "the fixture under test"},
                 Column{"bench_id", &Test::bench_id, "the bench it hangs in"},
                 Column{"sensor_id", &Test::sensor_id, "the quantum sensor"},
                 Column{"wall_meter_id", &Test::wall_meter_id, "the wall meter"},
                 Column{"name", &Test::name, "name of the test"},
                 Column{"grid_kind", &Test::grid_kind, "cells, nodes, inset or spots"},
                 Column{"columns", &Test::columns, "stations along x"},
                 Column{"rows", &Test::rows, "stations along y"},
                 Column{"margin_x_m", &Test::margin_x_m,
                        "inset: distance of the outer stations from the left and right walls [m]"},
                 Column{"margin_y_m", &Test::margin_y_m, "inset: distance from the front and far walls [m]"},
                 Column{"spots", &Test::spots, "spots: JSON list of {name, x_m, y_m}"},
                 Column{"photoperiod_h", &Test::photoperiod_h, "hours of light a day [h]"},
                 Column{"target_name", &Test::target_name, "crop target"},
                 Column{"target_low_ppfd", &Test::target_low_ppfd, "low end of the target's band [umol/m2/s]"},
                 Column{"target_high_ppfd", &Test::target_high_ppfd, "high end of the target's band [umol/m2/s]"},
                 Column{"door", &Test::door, "door while reading: closed or open"},
                 Column{"datum", &Test::datum, "what heights are measured from: diodes, lens or lamp underside"},
                 Column{"tape_from", &Test::tape_from, "where the tape for heights ends: sensor, floor or canopy"},
                 Column{"canopy_height_m", &Test::canopy_height_m, "height of the pretend canopy over the floor [m]"},
                 Column{"walk_order", &Test::walk_order, "far to door, door to far or center outward"},
                 Column{"opening_probe", &Test::opening_probe, "center and corners are read before the rest"},
                 Column{"reference_every", &Test::reference_every,
                        "the reference station is read again after so many readings; 0: never"},
                 Column{"samples_a_reading", &Test::samples_a_reading, "sensor values averaged into one reading"},
                 Column{"seconds_a_reading", &Test::seconds_a_reading, "time planned for one station [s]"},
                 Column{"warm_up_min", &Test::warm_up_min, "time planned for warming up [min]"},
                 Column{"checked_level", &Test::checked_level, "hung level, by an instrument: yes or no"},
                 Column{"checked_center", &Test::checked_center, "hung over the middle, measured: yes or no"},
                 Column{"checked_height", &Test::checked_height, "height measured at all corners: yes or no"},
                 Column{"checked_fans", &Test::checked_fans, "fans running as in use: yes or no"},
                 Column{"tested_by", &Test::tested_by, "who measured"},
                 Column{"tested_on", &Test::tested_on, "when (ISO 8601 date)"},
                 Column{"mains_v", &Test::mains_v, "mains voltage [V]"},
                 Column{"mains_hz", &Test::mains_hz, "mains frequency [Hz]"},
                 Column{"circuit_a", &Test::circuit_a, "rating of the circuit it is plugged into [A]"},
                 Column{"tariff_per_kwh", &Test::tariff_per_kwh, "price of energy, per kWh"},
                 Column{"tariff_currency", &Test::tariff_currency, "currency of that price"},
                 Column{"target_by_daily_light", &Test::target_by_daily_light,
                        "the target's band is one of daily light and moves with the photoperiod"},
                 Column{"height_uncertainty_m", &Test::height_uncertainty_m, "standard uncertainty of the heights [m]"},
                 Column{"position_uncertainty_m", &Test::position_uncertainty_m,
                        "standard uncertainty of a station's place along each axis [m]"},
                 Column{"edge_uncertainty_m", &Test::edge_uncertainty_m,
                        "standard uncertainty of the footprint's width and depth [m]"},
                 Column{"spectral_uncertainty_pct", &Test::spectral_uncertainty_pct,
                        "standard uncertainty of the sensor's spectral response [%]"},
                 Column{"cosine_uncertainty_pct", &Test::cosine_uncertainty_pct,
                        "standard uncertainty of the sensor's cosine response at the lowest angles [%]"},
                 Column{"notes", &Test::notes, "remarks"},
                 Column{"created_at", &Test::created_at, "when the test was set up (UTC)"},
                 Column{"simulated", &Test::simulated, "readings come from a simulated bench"},
                 Column{"removed", &Test::removed, "taken off the shelf"}};
};

struct Rung {
  Id id = 0, test_id = 0;
  double height_m = 0.45;
  bool operator==(const Rung&) const = default;
};
template <>
struct Table<Rung> {
  static constexpr const char* name = "rung";
  static constexpr auto columns =
      std::tuple{Column{"test_id", &Rung::test_id, "the test"},
                 Column{"height_m", &Rung::height_m, "emitting plane to the sensor's receiving surface [m]"}};
};

struct Stop {
  Id id = 0, test_id = 0;
  double percent = 100;
  bool operator==(const Stop&) const = default;
};
template <>
struct Table<Stop> {
  static constexpr const char* name = "stop";
  static constexpr auto columns = std::tuple{Column{"test_id", &Stop::test_id, "the test"},
                                             Column{"percent", &Stop::percent, "dimmer setting [% of the dial]"}};
};

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
  bool operator==(const Sweep&) const = default;
};
template <>
struct Table<Sweep> {
  static constexpr const char* name = "sweep";
  static constexpr auto columns =
      std::tuple{Column{"test_id", &Sweep::test_id, "the test"},
                 Column{"rung_id", &Sweep::rung_id, "the hanging height"},
                 Column{"stop_id", &Sweep::stop_id, "the dimmer setting"},
                 Column{"grid_kind", &Sweep::grid_kind, "cells, nodes, inset or spots"},
                 Column{"columns", &Sweep::columns, "stations along x"},
                 Column{"rows", &Sweep::rows, "stations along y"},
                 Column{"margin_x_m", &Sweep::margin_x_m,
                        "inset: distance of the outer stations from the left and right walls [m]"},
                 Column{"margin_y_m", &Sweep::margin_y_m, "inset: distance from the front and far walls [m]"},
                 Column{"spots", &Sweep::spots, "spots: JSON list of {name, x_m, y_m}"},
                 Column{"dark_offset", &Sweep::dark_offset, "subtracted from the raw reading"},
                 Column{"calibration_factor", &Sweep::calibration_factor, "multiplies the reading"},
                 Column{"spectral_factor", &Sweep::spectral_factor, "multiplies the reading"},
                 Column{"power_w", &Sweep::power_w, "power at the wall plug that holds for this sweep [W]"},
                 Column{"notes", &Sweep::notes, "remarks"}};
};

/// A raw value as it was read. Rows are only ever added: a re-read or an undo changes which one counts, never this.
struct Reading {
  Id id = 0, sweep_id = 0;
  int station = 0;
  double raw = 0;
  std::string source;  ///< typed, pasted, file, live, simulated
  std::string taken_at;
  int samples = 1;
  std::optional<double> spread{};
  bool operator==(const Reading&) const = default;
};
template <>
struct Table<Reading> {
  static constexpr const char* name = "reading";
  static constexpr auto columns =
      std::tuple{Column{"sweep_id", &Reading::sweep_id, "the sweep"},
                 Column{"station", &Reading::station,
                        "station index: row * columns + column, from the front left; spots as listed"},
                 Column{"raw", &Reading::raw, "value as read [umol/m2/s before correction]"},
                 Column{"source", &Reading::source, "typed, pasted, file, live or simulated"},
                 Column{"taken_at", &Reading::taken_at, "when (UTC)"},
                 Column{"samples", &Reading::samples, "sensor values averaged into raw"},
                 Column{"spread", &Reading::spread, "their standard deviation, in the unit of raw"}};
};

/// A reading beside the sweep's own: of the reference station, for drift, or of any station again, for repeatability.
struct SideReading {
  Id id = 0, sweep_id = 0;
  int station = 0;
  std::string purpose;  ///< reference or repeat
  double raw = 0;
  std::string source, taken_at;
  int samples = 1;
  std::optional<double> spread{};
  bool operator==(const SideReading&) const = default;
};
template <>
struct Table<SideReading> {
  static constexpr const char* name = "side_reading";
  static constexpr auto columns =
      std::tuple{Column{"sweep_id", &SideReading::sweep_id, "the sweep"},
                 Column{"station", &SideReading::station, "station index"},
                 Column{"purpose", &SideReading::purpose, "reference (for drift) or repeat (for repeatability)"},
                 Column{"raw", &SideReading::raw, "value as read [umol/m2/s before correction]"},
                 Column{"source", &SideReading::source, "typed, live or simulated"},
                 Column{"taken_at", &SideReading::taken_at, "when (UTC)"},
                 Column{"samples", &SideReading::samples, "sensor values averaged into raw"},
                 Column{"spread", &SideReading::spread, "their standard deviation, in the unit of raw"}};
};

/// A check that the tester looked at and set aside, with the reason that the report prints.
struct Dismissal {
  Id id = 0, test_id = 0;
  std::optional<Id> sweep_id;  ///< none: about the test as a whole
  std::string rule, stations;
  std::string saw, reason, at;
  bool operator==(const Dismissal&) const = default;
};
template <>
struct Table<Dismissal> {
  static constexpr const char* name = "dismissal";
  static constexpr auto columns =
      std::tuple{Column{"test_id", &Dismissal::test_id, "the test"},
                 Column{"sweep_id", &Dismissal::sweep_id, "the sweep; empty: the test as a whole"},
                 Column{"rule", &Dismissal::rule, "the rule's name"},
                 Column{"stations", &Dismissal::stations, "station indices it is about, with blanks between"},
                 Column{"saw", &Dismissal::saw, "what it saw"},
                 Column{"reason", &Dismissal::reason, "why it was set aside"},
                 Column{"at", &Dismissal::at, "when (UTC)"}};
};

/// Which reading counts at a station; none where the station is declared missing.
struct Placement {
  Id id = 0, sweep_id = 0;
  int station = 0;
  std::optional<Id> reading_id;
  std::string note;
  bool operator==(const Placement&) const = default;
};
template <>
struct Table<Placement> {
  static constexpr const char* name = "placement";
  static constexpr auto columns = std::tuple{
      Column{"sweep_id", &Placement::sweep_id, "the sweep"}, Column{"station", &Placement::station, "station index"},
      Column{"reading_id", &Placement::reading_id, "the reading that counts; empty: declared missing"},
      Column{"note", &Placement::note, "why"}};
};

}  // namespace sunbreak::book
