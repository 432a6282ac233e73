#include "workbook/workbook.h"

#include <cmath>

#include "record/configurations.h"
#include "workbook/sheets.h"

namespace sunbreak::workbook {
namespace {

/// One light scale for all sheets.
drawing::ScaleRange scale_over(const evaluation::Evaluations& evaluations) {
  double lowest = INFINITY, highest = -INFINITY;
  for (const auto& evaluation : evaluations)
    if (const auto range = evaluation->light_range())
      lowest = std::min(lowest, range->first), highest = std::max(highest, range->second);
  return lowest <= highest ? drawing::round_range(lowest, highest) : drawing::ScaleRange{};
}

}  // namespace

Result<std::string> workbook_bytes(const evaluation::Evaluations& evaluations, const WorkbookOptions& options) {
  return written_book(record::title_of(evaluations.front()->record()), [&](BookWriter& book) {
    const drawing::ScaleRange range = scale_over(evaluations);
    for (std::size_t i = 0; i < evaluations.size(); ++i) {
      const evaluation::Evaluation& evaluation = *evaluations[i];
      const record::TestRecord& b = evaluation.record();
      const std::string configuration =
          evaluations.size() > 1 ? record::configuration_name(b, b.configuration_id) : std::string();
      lxw_worksheet* figures_sheet = book.sheet(configuration.empty() ? "Figures" : "Figures " + configuration);
      std::vector<SweepSheet> sweeps;
      for (const auto& [sweep, view] : evaluation::read_sweeps(evaluation))
        sweeps.push_back(add_sweep_sheet(book, evaluation, *sweep, *view, configuration, range, options.units));
      fill_figures_sheet(book, figures_sheet, evaluation, sweeps, options.units);
      add_stair_sheet(book, evaluation);
      if (i < options.audits.size()) add_claims_sheet(book, options.audits[i], configuration, options.units);
    }
    add_log_sheet(book, *evaluations.front());
    add_definitions_sheet(book);
  });
}

Result<std::string> workbook_bytes(const evaluation::LineUp& lineup, const std::string& declared_way,
                                   UnitSystem units) {
  return written_book("Line-up", [&](BookWriter& book) { add_line_up_sheet(book, lineup, declared_way, units); });
}

}  // namespace sunbreak::workbook
