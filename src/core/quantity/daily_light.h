#pragma once

namespace sunbreak {

/// Daily light integral [mol m⁻² d⁻¹] of a steady PPFD [µmol m⁻² s⁻¹] over a photoperiod [h]. ANSI/ASABE S640.
constexpr double dli_mol_m2_d(double ppfd, double photoperiod_h) { return ppfd * 3600.0 * photoperiod_h / 1e6; }

/// The PPFD [µmol m⁻² s⁻¹] that gives a DLI [mol m⁻² d⁻¹] over a photoperiod [h].
constexpr double ppfd_for_dli(double dli_mol_m2, double photoperiod_h) {
  return dli_mol_m2 * 1e6 / (3600.0 * photoperiod_h);
}

}  // namespace sunbreak
