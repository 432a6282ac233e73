#pragma once

namespace sunbreak {

/// Energy and money for some days of use.
struct RunningCost {
  double kwh_day = 0, kwh_week = 0, kwh_month = 0, kwh_year = 0;
  double money_day = 0, money_week = 0, money_month = 0, money_year = 0;
};

inline constexpr double days_a_week = 7, days_a_month = 30.4, days_a_year = 365;

/// From power [W], photoperiod [h/day] and tariff [money/kWh].
constexpr RunningCost running_cost(double power_w, double photoperiod_h, double tariff_per_kwh) {
  const double day = power_w * photoperiod_h / 1000;
  return {day,
          day * days_a_week,
          day * days_a_month,
          day * days_a_year,
          day * tariff_per_kwh,
          day * days_a_week * tariff_per_kwh,
          day * days_a_month * tariff_per_kwh,
          day * days_a_year * tariff_per_kwh};
}

/// Heat that a room has to get rid of [BTU/h]: all of the power ends as heat.
constexpr double heat_btu_h(double power_w) { return power_w * 3.412; }

/// Current [A] at a mains voltage [V] for power [W] and a power factor.
constexpr double mains_current_a(double power_w, double mains_v, double power_factor) {
  return power_w / (mains_v * power_factor);
}

/// A load that runs for hours is kept below this share of a circuit's rating by widespread rules; local ones decide.
inline constexpr double continuous_load_share = 0.8;

}  // namespace sunbreak
