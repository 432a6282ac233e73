#pragma once

#include "drawing/drawing.h"
#include "paper/pages.h"

namespace sunbreak::paper {

/// A page of markup, its figures apart, as a PDF: vector figures, real letters, contents that lead to their pages,
/// page numbers; no row of a table, no map and no picture is split between pages. `html` is one that our templates
/// make; its figures are asked for while it is made.
Result<std::string> page_pdf(const std::string& html, const std::vector<drawing::Drawing>& figures,
                             const std::string& title, const std::string& dated, const PaperSize& size);

}  // namespace sunbreak::paper
