#pragma once

#include <fmt/format.h>

#include <string>

#include "report/html_report.h"

namespace sunbreak::report {

/// Draws figures either in place or apart.
class FigureSink {
 public:
  FigureSink(HtmlReport& report, bool apart) : report_(report), apart_(apart) {}
  std::string put(std::string svg) {
    if (!apart_) return svg;
    // With its size stated, a viewer can lay the page out before it draws a figure.
    const std::string size = svg.substr(svg.find(" width="), svg.find(" role=") - svg.find(" width="));
    report_.figures.push_back(std::move(svg));
    return fmt::format("<img src=\"figure:{}\"{}>", report_.figures.size() - 1, size);
  }

 private:
  HtmlReport& report_;
  bool apart_;
};

}  // namespace sunbreak::report
