#pragma once

#include <string>
#include <vector>

#include "evaluation/check_lamps.h"

namespace sunbreak::evaluation {

/// The ways by check lamps, as a line-up's way is written: each lamp at what the first sensor made of it. Lamps whose
/// name cannot stand in a way are left out.
std::vector<std::string> lamp_ways(const LampBoard& board);

}  // namespace sunbreak::evaluation
