#pragma once

#include <kainjow/mustache.hpp>
#include <string_view>

#include "core/evidence/grade.h"
#include "core/uncertainty/budget.h"

namespace sunbreak::report {

/// The part of a sweep about how sure it is: its grade, what is missing for benchmark grade, and the budget, whose last
/// column is the figure that leads among those of evenness.
void add_trust(kainjow::mustache::data& sweep, const Budget& budget, const Evidence& evidence,
               std::string_view evenness_lead, UnitSystem units);

}  // namespace sunbreak::report
