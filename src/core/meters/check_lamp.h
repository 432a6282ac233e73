#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/result.h"

namespace sunbreak {

/// One reading of a check lamp before a day's work: at its place and setting, by one meter.
struct CheckReading {
  double day = 0;  ///< since any day that all readings share; later ones are larger
  std::string lamp, meter;
  std::vector<double> light;  ///< at the center and the stations beside it, always in the same order [µmol m⁻² s⁻¹]
  std::optional<double> watts;
};

/// So many readings of a lamp by a meter are what its chart learns from; each later one is judged.
inline constexpr std::size_t chart_learns_from = 5;

/// What charts of single values and of their weighted mean watch for. Both work on deviates that are normal as long as
/// nothing moves, so that the limits hold from the sixth reading on, however short the history is.
struct ControlLimits {
  double ewma_weight = 0.25;  ///< of the newest value
  double ewma_limit = 3.2;    ///< in standard deviations of the mean
  double single_limit = 4;    ///< in standard deviations of a value
};

/// A step that a chart found.
struct ChartMove {
  std::size_t found_at = 0;  ///< index of the reading at which a limit was passed
  std::size_t since = 0;     ///< index of the first reading after the likeliest moment of the step
  double change = 0;         ///< of the light, relative: −0.018 reads 1.8 % less
  double expanded = 0;       ///< half width of the interval that holds it in 95 %
};

/// The chart of one lamp read by one meter.
struct LampChart {
  std::string lamp, meter;
  std::vector<std::size_t> readings;  ///< indices into what was given, by day
  std::vector<double> level;          ///< ln of the light over the first reading's, mean of the stations
  std::vector<double> deviate;        ///< of each from all before it; NaN for the first five
  std::vector<double> ewma;           ///< their weighted mean, over its own standard deviation; NaN likewise
  double center = 0, sd = 0;          ///< of level, before any move: what limits are drawn by
  std::optional<ChartMove> move;      ///< the latest that still stands
  std::vector<std::size_t>
      odd_shape;  ///< readings whose stations do not go together: lamp or sensor was not in its place
  std::vector<std::size_t> odd_watts;  ///< readings at which the lamp drew other watts than before, by over 1 %

  /// Where a value would pass its limit, relative to the center line.
  double single_limit(const ControlLimits& limits = {}) const { return limits.single_limit * sd; }
};

/// Charts by lamp and meter, in the order they come. A Problem where a reading is not positive and finite, a lamp's
/// readings do not all have the same stations, or there are over 200 charts.
Result<std::vector<LampChart>> lamp_charts(const std::vector<CheckReading>& readings, const ControlLimits& limits = {});

enum class Mover { Sensor, Lamp, NotTold, Both };

/// Who moved, from all charts together: what one meter sees of two lamps alike is its own; what two meters see of one
/// lamp alike is the lamp's.
struct LampFinding {
  Mover mover = Mover::NotTold;
  std::string who;  ///< the lamp's or the meter's name
  double change = 0, expanded = 0;
  double since_day = 0;
  std::string words;  ///< with what to do
};
std::vector<LampFinding> lamp_findings(const std::vector<CheckReading>& readings, const std::vector<LampChart>& charts);

/// By what a meter's readings since then would have to be multiplied, and its relative standard uncertainty.
struct DriftCorrection {
  double factor = 1, standard_uncertainty = 0;
};
DriftCorrection drift_correction(const LampFinding& finding);

}  // namespace sunbreak
