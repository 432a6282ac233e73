#pragma once

#include <kainjow/mustache.hpp>

#include "report/html_report.h"

namespace sunbreak::report {

/// The panel in which a reader tries walked settings with targets, hours and tariffs of his own: what its script works
/// with, and the script, which is the only one that the page's content policy lets run. Nothing where nothing was read.
void add_explore_panel(kainjow::mustache::data& page, const evaluation::Evaluations& evaluations,
                       const drawing::ScaleRange& range, const ReportOptions& options);

}  // namespace sunbreak::report
