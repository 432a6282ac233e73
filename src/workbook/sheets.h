#pragma once

#include "evaluation/lineup/lineup.h"
#include "evaluation/read_sweeps.h"
#include "workbook/book_writer.h"
#include "workbook/workbook.h"

/// The sheets of a workbook, one function each.
namespace sunbreak::workbook {

/// A sweep's sheet and where the figures' formulas find what they take.
struct SweepSheet {
  const record::Sweep* sweep = nullptr;
  const evaluation::SweepView* view = nullptr;
  std::string name;     ///< as the figures' head has it
  std::string ppfd;     ///< range of the corrected readings
  std::string weights;  ///< range of their weights; empty where all are alike
};

/// The readings on the bench as seen from above, corrected and raw, with a profile through the middle.
SweepSheet add_sweep_sheet(BookWriter& book, const evaluation::Evaluation& evaluation, const record::Sweep& sweep,
                           const evaluation::SweepView& view, const std::string& configuration,
                           const drawing::ScaleRange& range, UnitSystem units);

/// All figures of all sweeps with their ±, what can be live as formulas. Added first and filled last.
void fill_figures_sheet(BookWriter& book, lxw_worksheet* sheet, const evaluation::Evaluation& evaluation,
                        const std::vector<SweepSheet>& sweeps, UnitSystem units);

/// Light and watts at the wall over time; nothing where nothing was logged.
void add_log_sheet(BookWriter& book, const evaluation::Evaluation& evaluation);
/// The dimmer's stair; nothing where none was walked.
void add_stair_sheet(BookWriter& book, const evaluation::Evaluation& evaluation);
void add_claims_sheet(BookWriter& book, const evaluation::Audit& audit, const std::string& configuration,
                      UnitSystem units);
void add_definitions_sheet(BookWriter& book);
void add_line_up_sheet(BookWriter& book, const evaluation::LineUp& lineup, const std::string& declared_way,
                       UnitSystem units);

}  // namespace sunbreak::workbook
