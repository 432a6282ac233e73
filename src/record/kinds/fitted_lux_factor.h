#pragma once

#include <optional>
#include <string>

#include "core/quantity/lux.h"
#include "record/kinds/description.h"

namespace sunbreak::record {

/// What a lux meter's values are multiplied by under one light: PPFD = k · lux.
struct FittedLuxFactor {
  Id id = 0, meter_id = 0;
  std::string name;
  std::string light_class;        ///< white, white with red, red and blue, other; empty: not stated
  std::string fixture;            ///< the name that the fixture it was found under had
  std::string source = "paired";  ///< paired, computed or stated
  double k = 0.0185;              ///< [umol/m2/s/lx]
  std::optional<double> k_expanded{};
  double lowest_lux = 0, highest_lux = most_lux;
  std::string pairs;  ///< lux and PPFD in turn, with a blank between numbers
  std::string reference;
  std::optional<double> reference_uncertainty_pct{};
  std::string wavelengths_nm, photons;  ///< the light it was found under; empty where it was not measured
  std::string made_on, notes;
  std::optional<Id> fixture_id{};  ///< the fixture it was found under; in a test only where it is the test's own
  bool operator==(const FittedLuxFactor&) const = default;
};

inline constexpr const char* light_classes[] = {"white", "white with red", "red and blue", "other"};

template <>
struct Described<FittedLuxFactor> {
  static constexpr Facts facts{.name = "lux_factor", .since = 12};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("meter_id", &FittedLuxFactor::meter_id, "the lux meter").belongs_to("meter");
    columns.add("name", &FittedLuxFactor::name, "what it is called");
    columns.add("light_class", &FittedLuxFactor::light_class, "white, white with red, red and blue or other")
        .one_of({"white", "white with red", "red and blue", "other"});
    columns.add("fixture", &FittedLuxFactor::fixture, "name of the fixture that it was found under");
    columns
        .add("source", &FittedLuxFactor::source,
             "paired (readings side by side), computed (of a spectrum, by the standard eye) or stated")
        .one_of({"paired", "computed", "stated"});
    columns.add("k", &FittedLuxFactor::k, "PPFD = k * lux").unit("umol/m2/s/lx").between(0.0001, 1);
    columns.add("k_expanded", &FittedLuxFactor::k_expanded, "half width of the interval that holds k in 95 %")
        .unit("umol/m2/s/lx")
        .between(0, 1);
    columns.add("lowest_lux", &FittedLuxFactor::lowest_lux, "lowest level it was found at")
        .unit("lx")
        .between(0, most_lux);
    columns.add("highest_lux", &FittedLuxFactor::highest_lux, "highest level").unit("lx").between(0, most_lux);
    columns.add("pairs", &FittedLuxFactor::pairs, "lux and PPFD in turn, with a blank between numbers");
    columns.add("reference", &FittedLuxFactor::reference, "the sensor that told the PPFD");
    columns
        .add("reference_uncertainty_pct", &FittedLuxFactor::reference_uncertainty_pct,
             "relative standard uncertainty of its calibration")
        .unit("%")
        .between(0, 100);
    columns.add("wavelengths_nm", &FittedLuxFactor::wavelengths_nm,
                "wavelengths of the light it was found under [nm], rising; empty: not measured");
    columns.add("photons", &FittedLuxFactor::photons, "photons at each of them, relative");
    columns.add("made_on", &FittedLuxFactor::made_on, "when (ISO 8601 date)").date();
    columns.add("notes", &FittedLuxFactor::notes, "remarks");
    columns
        .add("fixture_id", &FittedLuxFactor::fixture_id,
             "the fixture it was found under; empty: none, or another than the test's")
        .refers_to("fixture")
        .since(15);
  }
};

}  // namespace sunbreak::record
