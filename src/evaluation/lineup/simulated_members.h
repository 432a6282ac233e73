#pragma once

#include <string>

#include "evaluation/lineup/lineup.h"

namespace sunbreak::evaluation {

/// Which tests of a line-up were not measured, in a sentence; empty where all were.
std::string simulated_words(const LineUp& lineup);
/// The same in a few words, without names.
std::string simulated_count_words(const LineUp& lineup);

}  // namespace sunbreak::evaluation
