#pragma once

#include <string>
#include <vector>

#include "core/quantity/display.h"
#include "drawing/drawing.h"
#include "evaluation/audit/audit.h"
#include "evaluation/configurations.h"
#include "evaluation/lineup/lineup.h"
#include "record/picture_files.h"
#include "report/page_parts.h"

namespace sunbreak::report {

struct ReportOptions {
  UnitSystem units = UnitSystem::Metric;  ///< those that the evaluation was made with
  std::vector<record::Id> sweeps;         ///< which sweeps to print; all that have readings where empty
  PageParts parts = all_parts;
  bool explore = false;                       ///< with a panel to try settings, targets and hours in, and its script
  std::vector<record::CropTarget> targets{};  ///< the shelf's lists; those that ship where empty
  evaluation::StandingLineUp standing{};      ///< where one is at hand
  std::string line_up_link{};                 ///< to a line-up that the test stands in
  std::string package_digest{};               ///< SHA-256 of the data package that goes with it, where that is known
  int most_readings_printed = 1'000'000;      ///< sweeps of more stations get a sentence in place of their table
  /// Viewers and papers that draw figures themselves get <img src="figure:N"> and the figures apart.
  bool figures_apart = false;
  record::PictureSource pictures;                         ///< where there is none, pictures are not drawn
  std::shared_ptr<const evaluation::Evaluation> earlier;  ///< the test that this one repeats, where it is at hand
  std::vector<evaluation::Audit> audits;  ///< the evaluations', in their order; none: claims stand without verdicts
  drawing::Palette palette = drawing::paper_palette();  ///< of a dark screen's preview; pages are on paper
};

struct HtmlReport {
  std::string html;
  /// By the N of their "figure:N"; empty unless asked for apart. They refer to the evaluations and audits.
  std::vector<drawing::Drawing> figures;
};

/// The report of one test in all its configurations: one self-contained page, nothing fetched, no script but that of
/// the panel to explore; all text of the lab book is escaped.
HtmlReport html_report(const evaluation::Evaluations& evaluations, const ReportOptions& options = {});

}  // namespace sunbreak::report
