#pragma once

#include <kainjow/mustache.hpp>

#include "evaluation/sweep_view.h"
#include "evaluation/wall_log.h"
#include "report/html_report.h"

namespace sunbreak::report {

/// The part of a report about warm-up, dimmer, temperatures, cost and heat: sets `has_power` and what the template
/// shows under it. `log` is the test's own.
void add_power_section(kainjow::mustache::data& page, const record::TestRecord& test, const evaluation::WallLog& log,
                       const ReportOptions& options);

}  // namespace sunbreak::report
