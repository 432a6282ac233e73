#pragma once

#include <string>

#include "evaluation/lineup/lineup.h"

namespace sunbreak::evaluation {

/// Which tests of a line-up came by an altered package and which were not measured, in sentences; empty where none.
std::string provenance_words(const LineUp& lineup);
/// The same in a few words, without names.
std::string provenance_count_words(const LineUp& lineup);

}  // namespace sunbreak::evaluation
