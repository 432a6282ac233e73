#include "core/lineup/light_for_money.h"

#include <cmath>

#include "core/power/running_cost.h"

namespace sunbreak {

double hours_run(const MoneyTerms& terms) { return terms.years * days_a_year * terms.hours_a_day; }

double moles_of_unit_flux(const MoneyTerms& terms) {
  const double per_hour = -std::log1p(-terms.decay_pct_per_1000h / 100) / 1000, hours = hours_run(terms);
  // ∫ e^(−λ t) dt; without decay just the hours.
  const double lit = per_hour == 0 ? hours : -std::expm1(-per_hour * hours) / per_hour;
  return 3600e-6 * lit;
}

double kwh_of_watt(const MoneyTerms& terms) { return hours_run(terms) / 1000; }

Standing price_of_light(double price, const Standing& ppf) {
  return worked_out(price / ppf.value, {{-price / (ppf.value * ppf.value), &ppf}});
}

Standing cost_of_mole(double price, const Standing& power_w, const Standing& ppf, const MoneyTerms& terms) {
  const double moles = moles_of_unit_flux(terms) * ppf.value, of_watt = terms.tariff_per_kwh * kwh_of_watt(terms);
  const double cost = price + of_watt * power_w.value;
  return worked_out(cost / moles, {{of_watt / moles, &power_w}, {-cost / moles / ppf.value, &ppf}});
}

Standing cost_over_years(double price, const Standing& power_w, const MoneyTerms& terms) {
  const double of_watt = terms.tariff_per_kwh * kwh_of_watt(terms);
  return worked_out(price + of_watt * power_w.value, {{of_watt, &power_w}});
}

}  // namespace sunbreak
