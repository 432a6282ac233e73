#pragma once

#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "drawing/canvas.h"
#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "record/picture_files.h"

namespace sunbreak::report {

struct ReportOptions {
  UnitSystem units = UnitSystem::Metric;  ///< those that the evaluation was made with
  std::vector<record::Id> sweeps;         ///< which sweeps to print; all that have readings where empty
  bool readings_table = true;
  bool whole_light = true;                ///< its section, which takes a second or two
  int most_readings_printed = 1'000'000;  ///< sweeps of more stations get a sentence in place of their table
  /// Screens whose HTML viewer draws no SVG elements get <img src="figure:N"> and the figures apart.
  bool figures_apart = false;
  record::PictureSource pictures;                         ///< where there is none, pictures are not drawn
  std::shared_ptr<const evaluation::Evaluation> earlier;  ///< the test that this one repeats, where it is at hand
  std::vector<evaluation::Audit> audits;  ///< the evaluations', in their order; none: claims stand without verdicts
  drawing::Palette palette = drawing::paper_palette();  ///< of a dark screen's preview; pages are on paper
};

struct HtmlReport {
  std::string html;
  std::vector<std::string> figures;  ///< SVG documents, by the N of their "figure:N"; empty unless asked for apart
};

/// The report of one test in all its configurations: one self-contained page, no script, nothing fetched; all text of
/// the lab book is escaped.
HtmlReport html_report(const evaluation::Evaluations& evaluations, const ReportOptions& options = {});

}  // namespace sunbreak::report
