#pragma once

#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "core/result.h"
#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "evaluation/lineup/lineup.h"

namespace sunbreak::workbook {

struct WorkbookOptions {
  UnitSystem units = UnitSystem::Metric;  ///< those that the evaluations were made with
  std::vector<evaluation::Audit> audits;  ///< the evaluations', in their order; none: no sheet of claims
};

/// A test as an Office Open XML workbook (ECMA-376): figures, each sweep as a colored grid, wall log, stair, claims and
/// definitions. Mean, lowest ÷ mean, PPF, efficacy and daily light are formulas over the sheets' readings, watts and
/// hours; each stands only where it gives the figure that Sunbreak gives, to 1e-9. Texts are texts: none is taken for a
/// formula. A Problem where the temporary folder cannot be written.
Result<std::string> workbook_bytes(const evaluation::Evaluations& evaluations, const WorkbookOptions& options = {});

/// A line-up as a workbook: ranks, values with ±, who is tied with or dominated by whom, and its declared way.
Result<std::string> workbook_bytes(const evaluation::LineUp& lineup, const std::string& declared_way,
                                   UnitSystem units = UnitSystem::Metric);

}  // namespace sunbreak::workbook
