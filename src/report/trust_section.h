#pragma once

#include <kainjow/mustache.hpp>

#include "core/evidence/grade.h"
#include "core/uncertainty/budget.h"

namespace sunbreak::report {

/// The part of a sweep about how sure it is: its grade, what is missing for benchmark grade, and the budget.
void add_trust(kainjow::mustache::data& sweep, const Budget& budget, const Evidence& evidence);

}  // namespace sunbreak::report
