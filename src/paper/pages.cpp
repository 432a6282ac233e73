#include "paper/pages.h"

#include <cairo-pdf.h>
#include <fmt/format.h>

#include <sstream>

#include "core/visible.h"

namespace sunbreak::paper {
namespace {

using namespace drawing;

constexpr int title_points = 16, words_points = 9, foot_points = 8;
constexpr double picture_pixels_a_point = 4;

cairo_status_t take(void* into, const unsigned char* bytes, unsigned size) {
  static_cast<std::string*>(into)->append(reinterpret_cast<const char*>(bytes), size);
  return CAIRO_STATUS_SUCCESS;
}

/// The first characters of a text that are no longer than so many bytes.
std::string characters(const std::string& text, std::size_t bytes) {
  while (bytes > 0 && bytes < text.size() && (static_cast<unsigned char>(text[bytes]) & 0xC0) == 0x80) --bytes;
  return text.substr(0, bytes);
}

}  // namespace

Result<std::string> pdf_bytes(const std::string& title, const std::string& dated, const PaperSize& size,
                              const std::vector<Page>& pages, const std::vector<Bookmark>& bookmarks) {
  std::string bytes;
  cairo_surface_t* surface = cairo_pdf_surface_create_for_stream(take, &bytes, size.width, size.height);
  cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_TITLE, visible(title).c_str());
  cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_CREATOR, "Sunbreak");
  cairo_pdf_surface_set_metadata(surface, CAIRO_PDF_METADATA_CREATE_DATE,
                                 ((dated.empty() ? "1970-01-01" : visible(dated)) + "T00:00:00Z").c_str());
  cairo_t* target = cairo_create(surface);
  {
    CairoCanvas canvas(target, picture_pixels_a_point);
    int number = 0;
    for (const Page& page : pages) {
      page(canvas);
      const Box foot{margin, size.height - margin + 6, size.width - 2 * margin, foot_room - 8};
      const std::string of = fmt::format("page {} of {}", ++number, pages.size());
      const Lettering small{foot_points, false, canvas.colors().quiet};
      canvas.text(foot, Align::Right, of, small);
      canvas.text(
          foot, Align::Left,
          fitted(canvas, title, foot_points, false, foot.width - canvas.text_width(of, foot_points, false) - 20),
          small);
      cairo_show_page(target);
    }
  }
  for (const Bookmark& b : bookmarks)
    cairo_pdf_surface_add_outline(surface, CAIRO_PDF_OUTLINE_ROOT, visible(b.words).c_str(),
                                  fmt::format("page={} pos=[0 {:.1f}]", b.page, b.top).c_str(),
                                  static_cast<cairo_pdf_outline_flags_t>(0));
  cairo_destroy(target);
  cairo_surface_finish(surface);
  const cairo_status_t status = cairo_surface_status(surface);
  cairo_surface_destroy(surface);
  if (status != CAIRO_STATUS_SUCCESS)
    return Problem{fmt::format("the PDF could not be made: {}", cairo_status_to_string(status)), "nothing was written",
                   "close other programs, and try again"};
  return bytes;
}

double draw_page_head(Canvas& canvas, const PaperSize& size, const std::string& title, const std::string& words) {
  const double width = size.width - 2 * margin;
  canvas.text({margin, margin - 8, width, 22}, Align::Left, fitted(canvas, title, title_points, true, width),
              {title_points, true, canvas.colors().ink});
  double top = margin + 18;
  for (const std::string& line : wrapped(canvas, words, words_points, width)) {
    canvas.text({margin, top, width, 13}, Align::Left, line, {words_points, false, canvas.colors().quiet});
    top += 13;
  }
  return top + 8;
}

std::string fitted(const Canvas& canvas, const std::string& words, int pixels, bool bold, double width) {
  if (canvas.text_width(words, pixels, bold) <= width) return words;
  std::size_t low = 0, high = words.size();
  while (low + 1 < high) {
    const std::size_t middle = (low + high) / 2;
    (canvas.text_width(characters(words, middle) + "…", pixels, bold) <= width ? low : high) = middle;
  }
  return characters(words, low) + "…";
}

std::vector<std::string> wrapped(const Canvas& canvas, const std::string& words, int pixels, double width) {
  std::vector<std::string> lines;
  std::istringstream in(words);
  std::string line;
  for (std::string word; in >> word;) {
    word = fitted(canvas, word, pixels, false, width);
    const std::string longer = line.empty() ? word : line + " " + word;
    if (line.empty() || canvas.text_width(longer, pixels, false) <= width) {
      line = longer;
      continue;
    }
    lines.push_back(std::move(line));
    line = word;
  }
  if (!line.empty()) lines.push_back(std::move(line));
  return lines;
}

}  // namespace sunbreak::paper
