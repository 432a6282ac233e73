#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/uncertainty/pattern_change.h"
#include "evaluation/evaluation.h"

namespace sunbreak::evaluation {

/// How a figure changed from an earlier test to a later one.
struct FigureChange {
  double ratio = 0;     ///< later ÷ earlier; NaN where either is not known
  double expanded = 0;  ///< of it (k = 2), relative; what both were measured with cancels

  bool known() const { return ratio == ratio && expanded == expanded; }
  double percent() const { return 100 * (ratio - 1); }
  /// Whether it is beyond its uncertainty.
  bool beyond() const { return known() && (ratio > 1 ? ratio - 1 : 1 - ratio) > ratio * expanded; }
};

/// A sweep held against the one of the earlier test at the same height and setting.
struct RetestedSweep {
  Id sweep_id = 0, earlier_id = 0;
  double height_m = 0, percent = 0;
  FigureChange mean, power, efficacy;
  std::optional<PatternChange> pattern;  ///< where both were walked over one grid
};

/// A test held against an earlier one of the same unit, or of another of its model.
struct Retest {
  std::string earlier_title, earlier_on;
  bool same_unit = true;
  bool same_sensor = false;
  std::optional<double> hours_between;  ///< that the unit ran between them, where both tests state its hours
  std::vector<RetestedSweep> sweeps;
  int alone = 0;  ///< sweeps with readings that the earlier test has no counterpart of
  /// Light lost in 1,000 h of running, as a share of the earlier, with its ± (k = 2) [%]; of the same unit, over the
  /// mean of all heights and settings.
  std::optional<std::pair<double, double>> decay_pct_per_1000h;
};

/// Heights count as the same within 5 mm, settings within half a percent, footprints within 1 cm.
Retest retest_of(const Evaluation& now, const Evaluation& earlier);

/// What is to be said of it, the most important first: what changed beyond the uncertainty, what did not, the hours and
/// the decay, and what could not be compared.
std::vector<std::string> retest_sentences(const Retest& retest, UnitSystem units);

/// "−4.2 ± 1.1 %"
std::string change_text(const FigureChange& change);

}  // namespace sunbreak::evaluation
