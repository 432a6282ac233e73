#pragma once

#include <span>

#include "core/evidence/grade.h"
#include "core/power/timed_value.h"
#include "evaluation/stabilization.h"

namespace sunbreak::evaluation {

/// What is on record about a sweep. `walk` is how it was walked, `watts` what was logged at the wall; `open_checks` are
/// those of the sweep and of the test as a whole; its words are in `units`.
EvidenceFacts evidence_facts(const TestRecord& test_record, const Sweep& sweep, const SweepView& view,
                             const WalkedState& walk, std::span<const TimedValue> watts, int open_checks,
                             UnitSystem units = UnitSystem::Metric);

}  // namespace sunbreak::evaluation
