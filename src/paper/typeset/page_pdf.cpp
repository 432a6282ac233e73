#include "paper/typeset/page_pdf.h"

#include <cairo.h>

#include "paper/typeset/typesetter.h"

namespace sunbreak::paper {
namespace {
constexpr double points_a_px = 0.68;
}

Result<std::string> page_pdf(const std::string& html, const std::vector<drawing::Drawing>& figures,
                             const std::string& title, const std::string& dated, const PaperSize& size) {
  const double width = (size.width - 2 * margin) / points_a_px, height = (size.height - 2 * margin - 8) / points_a_px;
  const std::unique_ptr<cairo_surface_t, void (*)(cairo_surface_t*)> nowhere(
      cairo_image_surface_create(CAIRO_FORMAT_A8, 1, 1), cairo_surface_destroy);
  const std::unique_ptr<cairo_t, void (*)(cairo_t*)> measuring(cairo_create(nowhere.get()), cairo_destroy);
  const CairoCanvas measure(measuring.get(), 1);
  const Element body = markup_tree(html);
  Typesetter typesetter(measure, figures, height);
  const Slices slices = typesetter.set(body, width);
  const auto placed = paginated(slices, height);
  std::vector<Page> pages;
  std::vector<Bookmark> bookmarks;
  for (std::size_t n = 0; n < placed.size(); ++n) {
    for (const Placed& at : placed[n])
      if (at.slice->heading >= 0) {
        Heading& heading = (*typesetter.headings())[static_cast<std::size_t>(at.slice->heading)];
        heading.page = static_cast<int>(n) + 1;
        heading.top_pt = margin + at.top * points_a_px;
        bookmarks.push_back({heading.words, heading.page, heading.top_pt});
      }
    pages.push_back([&on = placed[n]](CairoCanvas& c) {
      c.scaled({margin, margin - 8}, points_a_px, [&] {
        for (const Placed& at : on)
          if (at.slice->draw) at.slice->draw(c, 0, at.top);
      });
    });
  }
  return pdf_bytes(title, dated, size, pages, bookmarks);
}

}  // namespace sunbreak::paper
