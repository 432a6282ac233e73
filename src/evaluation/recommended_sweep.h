#pragma once

#include <string>

#include "evaluation/read_sweeps.h"

namespace sunbreak::evaluation {

/// The walked sweep that a reader is shown first.
struct RecommendedSweep {
  const Sweep* sweep = nullptr;  ///< null where nothing was read
  const SweepView* view = nullptr;
  std::string why;  ///< it is this one, in a sentence
};

/// Of some of its sweeps the one that serves the test's target best (best_fit); where none has light in its band, or no
/// field between stations to tell it by, the one with the most light.
RecommendedSweep recommended_sweep(const Evaluation& evaluation, const ReadSweeps& among, UnitSystem units);

}  // namespace sunbreak::evaluation
