#pragma once

#include <memory>
#include <vector>

#include "evaluation/evaluation.h"

namespace sunbreak::evaluation {

/// One for each configuration of a test, the fixture as it comes first.
using Evaluations = std::vector<std::shared_ptr<const Evaluation>>;

/// Evaluates each configuration of a whole record for itself. `known` is taken for the one that it is of.
Evaluations evaluate_all(const TestRecord& whole, UnitSystem units = UnitSystem::Metric,
                         const std::shared_ptr<const Evaluation>& known = nullptr);

/// A test is graded by the weakest sweep of all its configurations; nothing where none has a reading.
std::optional<Grade> weakest_grade(const Evaluations& evaluations);

}  // namespace sunbreak::evaluation
