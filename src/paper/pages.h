#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/quantity/length.h"
#include "core/result.h"
#include "paper/cairo_canvas.h"

namespace sunbreak::paper {

/// Paper sizes, upright, in points of 1/72 inch (ISO 216; ANSI/ASME Y14.1).
struct PaperSize {
  double width, height;
};
inline constexpr PaperSize a4{595.276, 841.89}, letter{612, 792};
inline constexpr double points_a_meter = 72 / meters_per(LengthUnit::Inch), margin = 40, foot_room = 26;

/// What a page shows; the foot is put under it.
using Page = std::function<void(CairoCanvas&)>;

/// A place that a reader's program lists: on a page counted from 1, so far from its top [pt].
struct Bookmark {
  std::string words;
  int page = 1;
  double top = 0;
};

/// The pages as a PDF with the title in its description and at each foot, beside "page 2 of 5". It is dated by the test
/// that it is of (ISO 8601, empty where that is not stated), so that equal content gives equal bytes. A Problem where
/// there is no room for it.
Result<std::string> pdf_bytes(const std::string& title, const std::string& dated, const PaperSize& size,
                              const std::vector<Page>& pages, const std::vector<Bookmark>& bookmarks = {});

/// A title and a line below it at the top of a page; returns where what follows begins.
double draw_page_head(drawing::Canvas& canvas, const PaperSize& size, const std::string& title,
                      const std::string& words);

/// Words cut off with an ellipsis where they are wider than `width`.
std::string fitted(const drawing::Canvas& canvas, const std::string& words, int pixels, bool bold, double width);

/// Words in lines no wider than `width`.
std::vector<std::string> wrapped(const drawing::Canvas& canvas, const std::string& words, int pixels, double width);

}  // namespace sunbreak::paper
