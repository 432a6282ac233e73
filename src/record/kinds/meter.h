#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

struct Meter {
  Id id = 0;
  std::string kind = "quantum";  ///< quantum, spectrometer, lux or wall
  std::string name, calibrated_on;
  double factor = 1, dark_offset = 0;
  std::optional<double> uncertainty_pct, range_max, receiving_height_m, closest_approach_m;
  std::string notes;
  bool removed = false;
  /// Coverage factor with which the uncertainty is quoted; none where that is not known.
  std::optional<double> uncertainty_k{};
  /// What the sensor makes of each wavelength: its signal per photon. Empty where it is not known; so is the light that
  /// it was calibrated under.
  std::string response_nm{}, response{}, response_origin{};
  std::string reference_light_nm{}, reference_light{}, reference_light_name{};

  bool operator==(const Meter&) const = default;
};

/// What a meter is called before its owner names it.
inline std::string new_meter_name(const std::string& kind) {
  return kind == "wall"           ? "New wall meter"
         : kind == "spectrometer" ? "New spectrometer"
         : kind == "lux"          ? "New lux meter"
                                  : "New sensor";
}

template <>
struct Described<Meter> {
  static constexpr Facts facts{.name = "meter"};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns
        .add("kind", &Meter::kind,
             "quantum (light sensor), spectrometer (light by its spectrum), lux (light as the eye weighs it) or wall "
             "(plug-in power meter)")
        .one_of({"quantum", "spectrometer", "lux", "wall"});
    columns.add("name", &Meter::name, "name of the meter");
    columns.add("calibrated_on", &Meter::calibrated_on, "date of the last calibration (ISO 8601)").date();
    columns.add("factor", &Meter::factor, "calibration factor: corrected = (raw - dark) * factor").between(0.1, 10);
    columns.add("dark_offset", &Meter::dark_offset, "raw reading in the dark").between(-1000, 1000);
    columns.add("uncertainty_pct", &Meter::uncertainty_pct, "relative standard uncertainty").unit("%").between(0, 100);
    columns.add("range_max", &Meter::range_max, "upper end of the range, in the meter's unit").between(1, 1e6);
    columns.add("receiving_height_m", &Meter::receiving_height_m, "height of the receiving surface over its foot")
        .unit("m")
        .between(0, 2);
    columns.add("closest_approach_m", &Meter::closest_approach_m, "nearest it gets to a wall").unit("m").between(0, 2);
    columns.add("notes", &Meter::notes, "remarks");
    columns.add("removed", &Meter::removed, "taken off the shelf");
    columns
        .add("uncertainty_k", &Meter::uncertainty_k,
             "coverage factor with which the uncertainty is quoted; empty where it is not stated, and one standard "
             "deviation is assumed")
        .between(1, 4)
        .since(6);
    columns
        .add("response_nm", &Meter::response_nm,
             "wavelengths of its spectral response [nm], rising, with a blank between them; empty: not known")
        .since(12);
    columns.add("response", &Meter::response, "its signal per photon at each of them, relative").since(12);
    columns.add("response_origin", &Meter::response_origin, "where that came from").since(12);
    columns
        .add("reference_light_nm", &Meter::reference_light_nm,
             "wavelengths of the light it was calibrated under [nm]; empty: not known")
        .since(12);
    columns.add("reference_light", &Meter::reference_light, "photons at each of them, relative").since(12);
    columns.add("reference_light_name", &Meter::reference_light_name, "what that light is called").since(12);
  }
};

}  // namespace sunbreak::record
