#pragma once

#include <string>

#include "core/quantity/display.h"
#include "evaluation/configurations.h"

namespace sunbreak::evaluation {

/// What every surface says of what a simulated bench gave.
inline constexpr const char* not_measured = "computed by a simulated bench, not measured";

/// Which sweeps of a test were not measured, in a sentence; empty where all were.
std::string simulated_words(const Evaluations& evaluations, UnitSystem units);

}  // namespace sunbreak::evaluation
