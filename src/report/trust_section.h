#pragma once

#include <kainjow/mustache.hpp>
#include <string_view>

#include "evaluation/judgement.h"

namespace sunbreak::report {

/// "± 36", in the unit and with the decimals a figure is printed with; empty where it is not known.
std::string plus_minus(const Budget& budget, std::string_view id, double scale, int decimals);

/// The part of a sweep about how sure it is: its grade, what is missing for benchmark grade, and the budget.
void add_trust(kainjow::mustache::data& sweep, const evaluation::SweepJudgement& judged);

}  // namespace sunbreak::report
