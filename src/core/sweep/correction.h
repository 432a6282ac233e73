#pragma once

namespace sunbreak {

/// What turns a sensor's raw value into PPFD. The raw value is kept beside it for ever.
struct Correction {
  double dark_offset = 0;  ///< raw reading in the dark, in the raw unit
  double calibration_factor = 1;
  double spectral_factor = 1;

  bool operator==(const Correction&) const = default;
};

/// PPFD [µmol m⁻² s⁻¹] = (raw − dark offset) · calibration · spectral correction.
constexpr double corrected_ppfd(double raw, const Correction& c) {
  return (raw - c.dark_offset) * c.calibration_factor * c.spectral_factor;
}

}  // namespace sunbreak
