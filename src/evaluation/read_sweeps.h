#pragma once

#include <utility>
#include <vector>

#include "evaluation/evaluation.h"

namespace sunbreak::evaluation {

/// The sweeps that have readings, heights before settings in the plan's order, without those that confirm a card.
using ReadSweeps = std::vector<std::pair<const Sweep*, const SweepView*>>;
ReadSweeps read_sweeps(const Evaluation& evaluation);

/// "60 cm, 100 %": where and how a sweep was walked.
std::string sweep_name(const TestRecord& record, const Sweep& sweep, UnitSystem units);

}  // namespace sunbreak::evaluation
