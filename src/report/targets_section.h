#pragma once

#include <kainjow/mustache.hpp>

#include "report/html_report.h"
#include "report/sweep_section.h"

namespace sunbreak::report {

/// How each sweep serves each target of the list that the test goes by.
void add_targets_section(kainjow::mustache::data& page, const evaluation::Evaluation& evaluation,
                         const PrintedSweeps& printed, const ReportOptions& options);

}  // namespace sunbreak::report
