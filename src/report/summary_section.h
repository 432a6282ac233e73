#pragma once

#include <kainjow/mustache.hpp>

#include "evaluation/audit/audit.h"
#include "report/figure_sink.h"

namespace sunbreak::report {

/// What a reader wants to know in twenty seconds: the map of the recommended setting with five figures, the fixture's
/// picture, the verdict, the claims, how sure it is and who paid. Left out where nothing was read. `audit` may be null.
void add_summary(kainjow::mustache::data& page, const evaluation::Evaluation& evaluation,
                 const evaluation::Audit* audit, const drawing::ScaleRange& range, FigureSink& sink,
                 const ReportOptions& options);

}  // namespace sunbreak::report
