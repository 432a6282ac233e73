#pragma once

#include <kainjow/mustache.hpp>

#include "report/html_report.h"

namespace sunbreak::report {

/// What changed since the earlier test that this one repeats; that it is one, where that test is not at hand.
void add_retest_section(kainjow::mustache::data& page, const evaluation::Evaluation& evaluation,
                        const ReportOptions& options);

}  // namespace sunbreak::report
