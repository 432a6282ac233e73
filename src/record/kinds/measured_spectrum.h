#pragma once

#include <optional>
#include <string>

#include "record/kinds/description.h"

namespace sunbreak::record {

/// A spectrum of the fixture's light as it was measured; record/spectrum_samples.h makes a curve of it.
struct MeasuredSpectrum {
  Id id = 0, test_id = 0;
  std::string name;
  std::string scale = "power";  ///< photons or power
  bool absolute = false;
  std::string wavelengths_nm, light;  ///< numbers with a blank between them
  std::string source = "file";        ///< file, pasted, live or simulated
  std::string origin;                 ///< the file's name and column
  std::optional<Id> meter_id{};
  std::string taken_at;
  std::optional<double> percent{}, height_m{};
  std::optional<Id> configuration_id{};
  std::string notes;
  bool operator==(const MeasuredSpectrum&) const = default;
};

template <>
struct Described<MeasuredSpectrum> {
  static constexpr Facts facts{.name = "spectrum", .since = 11};
  template <typename Columns>
  static void describe(Columns& columns) {
    columns.add("test_id", &MeasuredSpectrum::test_id, "the test").belongs_to("test");
    columns.add("name", &MeasuredSpectrum::name, "what it is called");
    columns.add("scale", &MeasuredSpectrum::scale, "what its light is in proportion to: photons or power, per nm")
        .one_of({"photons", "power"});
    columns.add("absolute", &MeasuredSpectrum::absolute,
                "light is in umol/m2/s/nm or W/m2/nm, not only in proportion to it");
    columns.add("wavelengths_nm", &MeasuredSpectrum::wavelengths_nm,
                "wavelengths [nm], rising, with a blank between them");
    columns.add("light", &MeasuredSpectrum::light, "light at each of them, with a blank between them");
    columns.add("source", &MeasuredSpectrum::source, "file, pasted, live or simulated")
        .one_of({"file", "pasted", "live", "simulated"});
    columns.add("origin", &MeasuredSpectrum::origin, "the file it came from, and which of its spectra");
    columns.add("meter_id", &MeasuredSpectrum::meter_id, "the spectrometer").refers_to("meter");
    columns.add("taken_at", &MeasuredSpectrum::taken_at, "when (UTC)").moment();
    columns.add("percent", &MeasuredSpectrum::percent, "dimmer setting [% of the dial]").between(0, 200);
    columns.add("height_m", &MeasuredSpectrum::height_m, "hanging height of the fixture").unit("m").between(0.01, 10);
    columns
        .add("configuration_id", &MeasuredSpectrum::configuration_id,
             "the configuration; empty: the fixture as it comes")
        .refers_to("configuration");
    columns.add("notes", &MeasuredSpectrum::notes, "remarks");
  }
};

}  // namespace sunbreak::record
