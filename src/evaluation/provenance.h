#pragma once

#include <string>

#include "core/quantity/display.h"
#include "evaluation/configurations.h"

namespace sunbreak::evaluation {

/// What every surface says of a test whose package was altered on its way.
inline constexpr const char* altered_on_its_way = "altered after it was written";

/// What was altered, in a sentence; empty where nothing was.
std::string altered_words(const record::Test& test);

/// What every surface says of readings that a simulated bench gave.
inline constexpr const char* not_measured = "computed by a simulated bench, not measured";

/// Both in a few words, where little room is; empty where readings were measured and nothing was altered.
std::string provenance_note(const record::Test& test, bool computed);

/// The same in sentences, of a test as a whole.
std::string provenance_sentence(const record::Test& test);

/// What was altered in a test, and which of its sweeps were not measured, in sentences; empty where there is neither.
std::string provenance_words(const Evaluations& evaluations, UnitSystem units);

}  // namespace sunbreak::evaluation
