#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/reading_views.h"
#include "core/sweep/drift.h"
#include "core/uncertainty/budget.h"
#include "core/uncertainty/repeatability.h"

namespace sunbreak {

/// A station that was read again.
struct Repeats {
  int station = 0;
  RepeatedStation values;  ///< its own and the repeats, corrected alike
};

/// How far one reading scatters: from repeats, or without them from how all readings scatter about a smooth surface, or
/// as `usual` where there are too few for that. A sensor set down again is never in quite the same place; what places
/// unsure by `position_m` explain of the scatter is taken out, since the budget counts it apart.
/// `expected` is expected_light() of the readings.
InputQuantity repeatability_term(const Layout& layout, std::span<const double> ppfd, const ExpectedLight& expected,
                                 std::span<const Repeats> repeats, double position_m, double usual = 0.01);

/// What of the light's drift is left in a sweep: the noise of the reference where the sweep was scaled by it; otherwise
/// what drift the reference leaves possible beside `usual`; `unseen` where the reference was not read again. `noise`
/// is the relative standard deviation of a reading of the reference.
InputQuantity drift_term(const Drift& drift, double noise, double usual = 0.005, double unseen = 0.01);

}  // namespace sunbreak
