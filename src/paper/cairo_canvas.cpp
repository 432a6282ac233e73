#include "paper/cairo_canvas.h"

#include <cairo-ft.h>
#include <cairo.h>
#include <fmt/format.h>

#include <numbers>
#include <stdexcept>

#include "core/visible.h"
#include "drawing/hatching.h"
#include "fonts/fonts.h"

#include FT_FREETYPE_H

namespace sunbreak::paper {

using namespace drawing;

namespace {

/// The shipped face as cairo takes it, opened once: it lasts as long as the program, since cairo keeps what it drew
/// with. Safe from several threads.
cairo_font_face_t* shipped_face(bool bold) {
  struct Opened {
    cairo_font_face_t* faces[2]{};
    Opened() {
      FT_Library library = nullptr;
      if (FT_Init_FreeType(&library) != 0) throw std::runtime_error("letters cannot be drawn");
      int at = 0;
      for (const auto& bytes : {fonts::regular(), fonts::bold()}) {
        FT_Face file = nullptr;
        if (FT_New_Memory_Face(library, bytes.data(), static_cast<FT_Long>(bytes.size()), 0, &file) != 0)
          throw std::runtime_error("the shipped font cannot be read");
        faces[at++] = cairo_ft_font_face_create_for_ft_face(file, FT_LOAD_NO_HINTING);
      }
    }
  };
  static const Opened opened;
  return opened.faces[bold ? 1 : 0];
}

}  // namespace

CairoCanvas::CairoCanvas(cairo_t* target, double pixels_a_point, const Palette& palette)
    : target_(target), pixels_a_point_(pixels_a_point), palette_(palette) {}

void CairoCanvas::use(const Ink& ink) {
  cairo_set_source_rgba(target_, ink.color.red / 255.0, ink.color.green / 255.0, ink.color.blue / 255.0, ink.opacity);
}

void CairoCanvas::stroke(const Stroke& s) {
  use(s.ink);
  cairo_set_line_width(target_, s.width);
  const double w = s.width, dashed[] = {4 * w, 2 * w}, dotted[] = {w, 2 * w}, both[] = {4 * w, 2 * w, w, 2 * w};
  if (s.dash == Dash::Dashed) cairo_set_dash(target_, dashed, 2, 0);
  if (s.dash == Dash::Dotted) cairo_set_dash(target_, dotted, 2, 0);
  if (s.dash == Dash::DashDotted) cairo_set_dash(target_, both, 4, 0);
  cairo_stroke(target_);
  cairo_set_dash(target_, nullptr, 0, 0);
}

void CairoCanvas::take_face(int pixels, bool bold) const {
  cairo_set_font_face(target_, shipped_face(bold));
  cairo_set_font_size(target_, pixels);
}

double CairoCanvas::text_width(const std::string& words, int pixels, bool bold) const {
  take_face(pixels, bold);
  cairo_text_extents_t extents{};
  cairo_text_extents(target_, visible(words).c_str(), &extents);
  return extents.x_advance;
}

void CairoCanvas::fill(const Box& box, const Ink& ink) {
  if (box.empty()) return;
  use(ink);
  cairo_rectangle(target_, box.left, box.top, box.width, box.height);
  cairo_fill(target_);
}

void CairoCanvas::outline(const Box& box, const Stroke& s) {
  cairo_rectangle(target_, box.left, box.top, box.width, box.height);
  stroke(s);
}

void CairoCanvas::line(const Point& from, const Point& to, const Stroke& s) { lines({from, to}, s); }

void CairoCanvas::lines(const std::vector<Point>& points, const Stroke& s) {
  if (points.size() < 2) return;
  cairo_move_to(target_, points.front().x, points.front().y);
  for (const Point& p : points) cairo_line_to(target_, p.x, p.y);
  stroke(s);
}

void CairoCanvas::ellipse(const Box& box, const Stroke& s) {
  if (box.empty()) return;
  cairo_save(target_);
  cairo_translate(target_, box.center().x, box.center().y);
  cairo_scale(target_, box.width / 2, box.height / 2);
  cairo_new_sub_path(target_);
  cairo_arc(target_, 0, 0, 1, 0, 2 * std::numbers::pi);
  cairo_restore(target_);
  stroke(s);
}

void CairoCanvas::hatch(const Box& box, Hatch kind) {
  if (box.empty()) return;
  if (kind == Hatch::TooDim) {
    for_diagonals(box, [&](const Point& a, const Point& b) {
      cairo_move_to(target_, a.x, a.y);
      cairo_line_to(target_, b.x, b.y);
    });
    return stroke({hatch_ink(kind), hatch_width});
  }
  use(hatch_ink(kind));
  for_dots(box, [&](const Point& at) { cairo_rectangle(target_, at.x, at.y, 2 * dot_radius, 2 * dot_radius); });
  cairo_fill(target_);
}

void CairoCanvas::text(const Box& room, Align align, const std::string& words, const Lettering& lettering) {
  const std::string shown = visible(words);
  if (shown.empty()) return;
  const double width = text_width(shown, lettering.pixels, lettering.bold);
  const double x = align == Align::Left    ? room.left
                   : align == Align::Right ? room.right() - width
                                           : room.center().x - width / 2;
  use(lettering.ink);
  cairo_move_to(target_, x, room.center().y + 0.36 * lettering.pixels);
  cairo_show_text(target_, shown.c_str());
}

void CairoCanvas::pixels(const Box& box, const Pixels& p) {
  if (p.columns <= 0 || p.rows <= 0 || box.empty()) return;
  cairo_surface_t* picture = cairo_image_surface_create(CAIRO_FORMAT_ARGB32, p.columns, p.rows);
  auto* bytes = reinterpret_cast<std::uint32_t*>(cairo_image_surface_get_data(picture));
  const int stride = cairo_image_surface_get_stride(picture) / 4;
  for (int row = 0; row < p.rows; ++row)
    std::copy_n(p.argb.begin() + std::ptrdiff_t(row) * p.columns, p.columns, bytes + std::ptrdiff_t(row) * stride);
  cairo_surface_mark_dirty(picture);
  if (!p.jpeg.empty()) {
    auto* kept = new std::string(p.jpeg);
    cairo_surface_set_mime_data(
        picture, CAIRO_MIME_TYPE_JPEG, reinterpret_cast<const unsigned char*>(kept->data()), kept->size(),
        [](void* string) { delete static_cast<std::string*>(string); }, kept);
  }
  cairo_save(target_);
  cairo_translate(target_, box.left, box.top);
  cairo_scale(target_, box.width / p.columns, box.height / p.rows);
  cairo_set_source_surface(target_, picture, 0, 0);
  cairo_paint(target_);
  cairo_restore(target_);
  cairo_surface_destroy(picture);
}

void CairoCanvas::clip(const Box& box) {
  cairo_save(target_);
  cairo_rectangle(target_, box.left, box.top, box.width, box.height);
  cairo_clip(target_);
}

void CairoCanvas::unclip() { cairo_restore(target_); }

void CairoCanvas::scaled(const Point& at, double by, const std::function<void()>& draw) {
  cairo_save(target_);
  cairo_translate(target_, at.x, at.y);
  cairo_scale(target_, by, by);
  draw();
  cairo_restore(target_);
}

void CairoCanvas::link(const Box& box, int page, double top) {
  const std::string where = fmt::format("rect=[{:.2f} {:.2f} {:.2f} {:.2f}] page={} pos=[0 {:.2f}]", box.left, box.top,
                                        box.width, box.height, page, top);
  cairo_tag_begin(target_, CAIRO_TAG_LINK, where.c_str());
  cairo_tag_end(target_, CAIRO_TAG_LINK);
}

}  // namespace sunbreak::paper
