#pragma once

#include <fmt/format.h>

#include <string>

#include "drawing/svg_canvas.h"
#include "report/html_report.h"

namespace sunbreak::report {

/// Puts figures either in their place on the page or apart from it.
class FigureSink {
 public:
  FigureSink(HtmlReport& report, const ReportOptions& options) : report_(report), options_(options) {}
  std::string put(drawing::Drawing figure) {
    if (!options_.figures_apart) return drawing::svg_of(figure, options_.palette);
    // With its size stated, a viewer can lay the page out before it draws a figure.
    std::string place = fmt::format("<img src=\"figure:{}\" width=\"{:.0f}\" height=\"{:.0f}\">",
                                    report_.figures.size(), figure.width, figure.height);
    report_.figures.push_back(std::move(figure));
    return place;
  }

 private:
  HtmlReport& report_;
  const ReportOptions& options_;
};

}  // namespace sunbreak::report
