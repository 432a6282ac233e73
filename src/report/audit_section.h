#pragma once

#include <kainjow/mustache.hpp>

#include "report/figure_sink.h"
#include "report/html_report.h"

namespace sunbreak::report {

/// What the maker claims beside what was measured, with the verdicts; badge watts beside the wall's; the verdict in
/// words.
void add_audit_section(kainjow::mustache::data& page, const evaluation::Audit* audit, FigureSink& sink,
                       const ReportOptions& options);

}  // namespace sunbreak::report
