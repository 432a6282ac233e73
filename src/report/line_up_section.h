#pragma once

#include <kainjow/mustache.hpp>

#include "report/figure_sink.h"

namespace sunbreak::report {

/// Where a test stands among those that it may be held against, by the line-up of the options. Nothing where there is
/// none, or it is not told apart from anything there.
void add_line_up_section(kainjow::mustache::data& page, record::Id test, FigureSink& sink,
                         const ReportOptions& options);

}  // namespace sunbreak::report
