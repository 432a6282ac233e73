#pragma once

#include <string>

#include "evaluation/evaluation.h"

namespace sunbreak::evaluation {

/// Whether so little of a sweep was read that its figures stand for no whole area: none of it is a headline, a rank or
/// more than a spot check, unless what all of it would give stands in its place.
bool is_read_in_part(const Evaluation& evaluation, Id sweep_id);

/// Of a sweep with stations that were not read, how many were: "59 of 144 stations read". Empty where all were.
std::string part_read_words(const Evaluation& evaluation, Id sweep_id);

/// What follows for its figures, in sentences: which area they hold for, and what all of it would give as far as
/// the rest tells. Empty where all was read.
/// `budget` is the sweep's, null where it is not worked out yet.
std::string part_read_notice(const Evaluation& evaluation, Id sweep_id, const Budget* budget, UnitSystem units);

}  // namespace sunbreak::evaluation
