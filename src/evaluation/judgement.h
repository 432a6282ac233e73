#pragma once

#include <map>
#include <vector>

#include "core/evidence/grade.h"
#include "core/uncertainty/budget.h"
#include "evaluation/settling.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::evaluation {

/// The sweeps of a test, laid out and corrected, by id.
using SweepViews = std::map<Id, SweepView>;

/// All sweeps of a test that can be laid out.
SweepViews views_of(const TestRecord& bundle);

/// What a sweep's budget is worked out from: the meters' stated uncertainties, the tester's own, and what repeats,
/// reference readings and the other rungs at the same stop show. Refers to `view`, which has to outlive it.
BudgetQuestion budget_question(const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                               const SweepViews& views);

/// What is on record about a sweep. `walk` is how it was walked, `watts` what was logged at the wall; `open_checks` are
/// those of the sweep and of the test as a whole.
EvidenceFacts evidence_facts(const TestRecord& bundle, const Sweep& sweep, const SweepView& view,
                             const WalkedState& walk, std::span<const TimedValue> watts, int open_checks);

/// Everything that says how far a sweep's figures can be relied on.
struct SweepJudgement {
  Budget budget;
  Evidence evidence;
};

/// Grades every sweep with a reading.
std::map<Id, Evidence> evidence_of(const TestRecord& bundle, const SweepViews& views, const WallLog& log);

/// Judges every sweep with a reading. Dense sweeps take a tenth of a second each.
std::map<Id, SweepJudgement> judge(const TestRecord& bundle, const SweepViews& views, const WallLog& log);

/// A test is graded by its weakest sweep; nothing where none has a reading.
std::optional<Grade> test_grade(const std::map<Id, SweepJudgement>& sweeps);
std::optional<Grade> test_grade(const std::map<Id, Evidence>& sweeps);

}  // namespace sunbreak::evaluation
