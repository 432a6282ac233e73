#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/reading_views.h"
#include "core/sweep/drift.h"
#include "core/uncertainty/budget.h"

namespace sunbreak {

/// A station that was read again.
struct Repeats {
  int station = 0;
  std::vector<double> ppfd;  ///< its own and the repeats, corrected alike
};

/// What readings scatter by, in two parts: what one scatters by wherever it is taken, and what a place that is not
/// quite the station's makes of the light's slope there.
struct ObservedScatter {
  InputQuantity repeatability, position_m;
};

/// Both parts from all that shows them: the squares of repeats about their stations' means and of readings about a
/// smooth surface are a² + p² s², with s the light's relative slope there. What is usual counts like a few such
/// squares, so that one repeat does not turn it over and 144 readings do. A place that was stated stays as stated; one
/// that is assumed follows what the steep stations show beside the flat ones. The most likely pair by Fisher's scoring,
/// with its degrees of freedom by the information there is of it (Patterson and Thompson, Biometrika 58 (1971)).
/// `expected` is expected_light() of the readings.
ObservedScatter observed_scatter(const Layout& layout, const ExpectedLight& expected, std::span<const Repeats> repeats,
                                 const InputQuantity& position_m, double usual = 0.01);

/// What of the light's drift is left in a sweep: the noise of the reference where the sweep was scaled by it; otherwise
/// what drift the reference leaves possible beside `usual`; `unseen` where the reference was not read again. `noise`
/// is the relative standard deviation of a reading of the reference.
InputQuantity drift_term(const Drift& drift, double noise, double usual = 0.005, double unseen = 0.01);

}  // namespace sunbreak
