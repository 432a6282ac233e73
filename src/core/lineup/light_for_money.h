#pragma once

#include "core/lineup/standing.h"

namespace sunbreak {

/// What light is paid for by.
struct MoneyTerms {
  double years = 3, hours_a_day = 12;
  double tariff_per_kwh = 0.30;
  double decay_pct_per_1000h = 0;  ///< of the light there is, in 1,000 h of running
  bool operator==(const MoneyTerms&) const = default;
};

/// Hours of running over all the years.
double hours_run(const MoneyTerms& terms);

/// Photons over all the years from a flux that begins at 1 µmol/s and decays [mol]: 3,600 · 10⁻⁶ · ∫ (1 − d)^(t / 1,000
/// h) dt.
double moles_of_unit_flux(const MoneyTerms& terms);

/// Energy of 1 W over all the years [kWh].
double kwh_of_watt(const MoneyTerms& terms);

/// Price ÷ PPF on the footprint [money per µmol/s].
Standing price_of_light(double price, const Standing& ppf_umol_s);

/// (price + kWh · tariff) ÷ ∫ PPF dt over the years [money per mol]: what a mole of light on the canopy costs.
Standing cost_of_mole(double price, const Standing& power_w, const Standing& ppf_umol_s, const MoneyTerms& terms);

/// Price and energy over the years [money].
Standing cost_over_years(double price, const Standing& power_w, const MoneyTerms& terms);

}  // namespace sunbreak
