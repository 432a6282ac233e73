#pragma once

#include <string>

#include "core/quantity/display.h"
#include "evaluation/configurations.h"

namespace sunbreak::evaluation {

/// What every surface says of a test whose package was altered on its way.
inline constexpr const char* altered_on_its_way = "altered after it was written";

/// What was altered, in a sentence; empty where nothing was.
std::string altered_words(const record::Test& test);

/// What every surface says of what a simulated bench gave.
inline constexpr const char* not_measured = "computed by a simulated bench, not measured";

/// What was altered in a test, and which of its sweeps were not measured, in sentences; empty where there is neither.
std::string provenance_words(const Evaluations& evaluations, UnitSystem units);

}  // namespace sunbreak::evaluation
