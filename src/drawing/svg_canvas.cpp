#include "drawing/svg_canvas.h"

#include <fmt/format.h>

#include <cmath>

#include "core/markup.h"
#include "drawing/hatching.h"
#include "drawing/png.h"

namespace sunbreak::drawing {
namespace {

/// Of the shipped font, whose digits are all as wide; letters are a little narrower on the whole.
constexpr double character_width = 0.62, bold_wider = 1.06;

std::string fill_of(const Ink& ink) {
  std::string text = fmt::format(" fill=\"{}\"", ink.color.hex());
  if (ink.opacity < 1) text += fmt::format(" fill-opacity=\"{:.2f}\"", ink.opacity);
  return text;
}

std::string stroke_of(const Stroke& stroke) {
  std::string text =
      fmt::format(" fill=\"none\" stroke=\"{}\" stroke-width=\"{:g}\"", stroke.ink.color.hex(), stroke.width);
  if (stroke.ink.opacity < 1) text += fmt::format(" stroke-opacity=\"{:.2f}\"", stroke.ink.opacity);
  const auto dash = [&](std::initializer_list<double> widths) {
    text += " stroke-dasharray=\"";
    for (const double w : widths) text += fmt::format("{:g} ", w * stroke.width);
    text.back() = '"';
  };
  if (stroke.dash == Dash::Dashed) dash({4, 2});
  if (stroke.dash == Dash::Dotted) dash({1, 2});
  if (stroke.dash == Dash::DashDotted) dash({4, 2, 1, 2});
  return text;
}

/// The part of a stretch that lies in a box, by its parameter from 0 to 1; false where none does.
bool cut_to(const Box& box, const Point& a, const Point& b, double& from, double& to) {
  from = 0, to = 1;
  const Point run = b - a;
  const auto side = [&](double direction, double distance) {
    if (direction == 0) return distance >= 0;
    const double at = distance / direction;
    if (direction < 0) from = std::max(from, at);
    if (direction > 0) to = std::min(to, at);
    return from <= to;
  };
  return side(-run.x, a.x - box.left) && side(run.x, box.right() - a.x) && side(-run.y, a.y - box.top) &&
         side(run.y, box.bottom() - a.y);
}

}  // namespace

SvgCanvas::SvgCanvas(double width, double height, const std::string& label, const Palette& palette)
    : width_(width), height_(height), label_(label), palette_(palette) {}

std::string SvgCanvas::svg() const {
  return fmt::format(
             "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {0:.0f} {1:.0f}\" width=\"{0:.0f}\" "
             "height=\"{1:.0f}\" role=\"img\" aria-label=\"{2}\" font-family=\"B612, 'DejaVu Sans', sans-serif\">\n",
             width_, height_, markup_text(label_)) +
         body_ + "</svg>\n";
}

double SvgCanvas::text_width(const std::string& words, int pixels, bool bold) const {
  double characters = 0;
  for (const char c : words) characters += (c & 0xC0) != 0x80;
  return characters * character_width * pixels * (bold ? bold_wider : 1);
}

void SvgCanvas::fill(const Box& whole, const Ink& ink) {
  const Box box = clip_ ? whole.intersected(*clip_) : whole;
  if (box.empty()) return;
  body_ += fmt::format("<rect x=\"{:.2f}\" y=\"{:.2f}\" width=\"{:.2f}\" height=\"{:.2f}\"{}/>\n", box.left, box.top,
                       box.width, box.height, fill_of(ink));
}

void SvgCanvas::outline(const Box& box, const Stroke& stroke) {
  if (clip_ && !clip_->contains(box)) {
    line(box.top_left(), box.top_right(), stroke);
    line(box.top_right(), box.bottom_right(), stroke);
    line(box.bottom_right(), box.bottom_left(), stroke);
    return line(box.bottom_left(), box.top_left(), stroke);
  }
  body_ += fmt::format("<rect x=\"{:.2f}\" y=\"{:.2f}\" width=\"{:.2f}\" height=\"{:.2f}\"{}/>\n", box.left, box.top,
                       box.width, box.height, stroke_of(stroke));
}

void SvgCanvas::line(const Point& from, const Point& to, const Stroke& stroke) { lines({from, to}, stroke); }

void SvgCanvas::lines(const std::vector<Point>& points, const Stroke& stroke) {
  std::string path;
  Point pen{NAN, NAN};
  for (std::size_t i = 1; i < points.size(); ++i) {
    double from = 0, to = 1;
    if (clip_ && !cut_to(*clip_, points[i - 1], points[i], from, to)) continue;
    const Point run = points[i] - points[i - 1], a = points[i - 1] + run * from, b = points[i - 1] + run * to;
    if (!(std::abs(a.x - pen.x) < 1e-9 && std::abs(a.y - pen.y) < 1e-9))
      path += fmt::format("M{:.1f} {:.1f}", a.x, a.y);
    path += fmt::format("L{:.1f} {:.1f}", b.x, b.y);
    pen = b;
  }
  if (!path.empty()) body_ += fmt::format("<path d=\"{}\"{}/>\n", path, stroke_of(stroke));
}

void SvgCanvas::ellipse(const Box& box, const Stroke& stroke) {
  if (clip_ && !clip_->intersects(box)) return;
  body_ += fmt::format("<ellipse cx=\"{:.2f}\" cy=\"{:.2f}\" rx=\"{:.2f}\" ry=\"{:.2f}\"{}/>\n", box.center().x,
                       box.center().y, box.width / 2, box.height / 2, stroke_of(stroke));
}

void SvgCanvas::hatch(const Box& whole, Hatch kind) {
  const Box box = clip_ ? whole.intersected(*clip_) : whole;
  std::string path;
  if (kind == Hatch::TooDim)
    for_diagonals(box, [&](const Point& a, const Point& b) {
      path += fmt::format("M{:.1f} {:.1f}L{:.1f} {:.1f}", a.x, a.y, b.x, b.y);
    });
  else
    for_dots(box, [&](const Point& at) {
      path +=
          fmt::format("M{:.1f} {:.1f}h{:g}v{:g}h-{:g}z", at.x, at.y, 2 * dot_radius, 2 * dot_radius, 2 * dot_radius);
    });
  if (path.empty()) return;
  body_ += fmt::format("<path d=\"{}\"{}/>\n", path,
                       kind == Hatch::TooDim ? stroke_of({hatch_ink(kind), hatch_width}) : fill_of(hatch_ink(kind)));
}

void SvgCanvas::text(const Box& room, Align align, const std::string& words, const Lettering& lettering) {
  const double x = align == Align::Left ? room.left : align == Align::Right ? room.right() : room.center().x;
  const char* anchor = align == Align::Left ? "start" : align == Align::Right ? "end" : "middle";
  body_ += fmt::format("<text x=\"{:.1f}\" y=\"{:.1f}\" font-size=\"{}\"{} text-anchor=\"{}\"{}>{}</text>\n", x,
                       room.center().y + 0.36 * lettering.pixels, lettering.pixels, fill_of(lettering.ink), anchor,
                       lettering.bold ? " font-weight=\"bold\"" : "", markup_text(words));
}

void SvgCanvas::pixels(const Box& box, const Pixels& pixels) {
  body_ += fmt::format(
      "<image x=\"{:.2f}\" y=\"{:.2f}\" width=\"{:.2f}\" height=\"{:.2f}\" preserveAspectRatio=\"none\" "
      "href=\"data:image/png;base64,{}\"/>\n",
      box.left, box.top, box.width, box.height, base64(png(pixels)));
}

std::string svg_of(const Drawing& drawing, const Palette& palette) {
  SvgCanvas canvas(drawing.width, drawing.height, drawing.label, palette);
  drawing.draw(canvas);
  return canvas.svg();
}

}  // namespace sunbreak::drawing
