#pragma once

#include <cstdint>

namespace sunbreak::test {

/// How often something held.
struct Share {
  int held = 0, of = 0;
  void count(bool it_held) { held += it_held, ++of; }
  double value() const { return of > 0 ? static_cast<double>(held) / of : 0; }
};

/// Lux fits with planted slope, intercept, curvature and noise.
struct LuxTrial {
  Share k, slope, intercept, bend;     ///< intervals that held the truth
  Share k_of_scatter[3];               ///< of k: relative scatter alone, the same at all levels, both
  Share plain_holds;                   ///< fits through the origin that were said to hold
  Share intercept_found, curve_found;  ///< planted ones of over three times what the scatter could make of nothing
  Share wrong_spectrum_refused, same_spectrum_taken;
};
LuxTrial lux_trial(int fits, std::uint64_t seed);

/// Pairs of two sensors with planted ratio, constant, angle error and noise.
struct AgreementTrial {
  Share mean, ratio, low_limit, high_limit, proportion, constant, edge;  ///< intervals that held the truth
  Share angle_named;                                                     ///< planted ones of over 3 %
  Share angle_silent;                                                    ///< where none was planted
};
AgreementTrial agreement_trial(int pairs, std::uint64_t seed);

/// Histories of check lamps.
struct ChartTrial {
  int quiet_days = 0, false_alarms = 0;
  Share step_found, ramp_found;  ///< 2 %, within 10 days of its beginning
  Share step_size;               ///< intervals that held the step
  Share told_apart;              ///< sensor or lamp, where two lamps or two meters are there
};
ChartTrial chart_trial(int histories, std::uint64_t seed);

}  // namespace sunbreak::test
