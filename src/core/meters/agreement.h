#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/bench/place.h"
#include "core/result.h"

namespace sunbreak {

/// What two sensors read of the same light.
struct SensorPair {
  double first = 0;            ///< of the sensor that is trusted more [µmol m⁻² s⁻¹]
  double second = 0;           ///< of the other
  std::optional<Place> place;  ///< of the station, where it is known
};

/// The second from the first in percent of their mean.
constexpr double difference_pct(const SensorPair& pair) {
  return 200 * (pair.second - pair.first) / (pair.first + pair.second);
}

/// A value with the interval that holds it in 95 %.
struct Estimate {
  double value = 0, low = 0, high = 0;
};

enum class AgreementVerdict {
  Agree,    ///< the mean difference lies within what both are uncertain by
  Factor,   ///< one factor brings the second to the first
  Level,    ///< the ratio changes with the level: no factor will do
  Angle,    ///< the ratio changes towards the edge: an error with the angle of the light
  Scatter,  ///< single readings disagree by over a tenth: no factor will do
};

/// How two sensors agree. Differences are of the second from the first in percent of the pair's mean (Bland and
/// Altman).
struct Agreement {
  std::vector<double> differences_pct;  ///< one a pair
  Estimate ratio;                       ///< second over first
  Estimate mean_difference_pct;
  double scatter_pct = 0;                  ///< standard deviation of the differences
  Estimate low_limit_pct, high_limit_pct;  ///< limits of agreement: hold 95 % of single differences
  /// second = constant + proportion · first, both with errors in proportion to the light (weighted Deming regression).
  Estimate proportion, constant;
  std::optional<Estimate> edge_pct;  ///< of the ratio, outermost stations over the middle; none without places
  bool angle = false, level = false;
  AgreementVerdict verdict = AgreementVerdict::Agree;
  std::string words;
};

/// `uncertainty_first`, `uncertainty_second`: relative standard uncertainties of both calibrations, NaN where not
/// known. A Problem where there are under five pairs or one is not positive and finite.
Result<Agreement> agreement(const std::vector<SensorPair>& pairs, double uncertainty_first, double uncertainty_second);

/// The calibration that the second sensor gets where its readings are brought to the first: its factor over the ratio,
/// and the relative standard uncertainty it has from then on.
struct CarriedCalibration {
  double factor = 1;
  double standard_uncertainty = 0;  ///< of the first's calibration and of the ratio, together
  double added = 0;                 ///< of the ratio alone
};
CarriedCalibration carried_calibration(const Agreement& agreement, double factor_second, double uncertainty_first);

}  // namespace sunbreak
