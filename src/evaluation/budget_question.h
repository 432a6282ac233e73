#pragma once

#include "core/uncertainty/budget.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// What a sweep's budget is worked out from: the meters' stated uncertainties, the tester's own, and what repeats,
/// reference readings and the other rungs at the same stop show. Refers to `view`, which has to outlive it.
BudgetQuestion budget_question(const TestRecord& test_record, const Sweep& sweep, const SweepView& view,
                               const SweepViews& views);

/// What the sensor's spectral response is taken to be off by, as stated or usual: a relative standard uncertainty.
double spectral_standard(const TestRecord& test_record, const Sweep& sweep);

}  // namespace sunbreak::evaluation
