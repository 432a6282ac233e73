#pragma once

#include <optional>

#include "drawing/drawing.h"

namespace sunbreak::drawing {

/// Paints a drawing as one SVG element. Plain shapes only, since not every viewer knows patterns,
/// clip paths or masks; lines and areas are cut off at a clip here, words are not.
///
///   SvgCanvas canvas(640, 720, "PPFD map");
///   draw_map(canvas, fit, scene);
///   page += canvas.svg();
class SvgCanvas final : public Canvas {
 public:
  /// `label` is what a screen reader says of it.
  SvgCanvas(double width, double height, const std::string& label, const Palette& palette = paper_palette());
  std::string svg() const;

  const Palette& colors() const override { return palette_; }
  double pixels_a_point() const override { return 2; }
  double text_width(const std::string& words, int pixels, bool bold) const override;
  void fill(const Box& box, const Ink& ink) override;
  void outline(const Box& box, const Stroke& stroke) override;
  void line(const Point& from, const Point& to, const Stroke& stroke) override;
  void lines(const std::vector<Point>& points, const Stroke& stroke) override;
  void ellipse(const Box& box, const Stroke& stroke) override;
  void hatch(const Box& box, Hatch kind) override;
  void text(const Box& room, Align align, const std::string& words, const Lettering& lettering) override;
  void pixels(const Box& box, const Pixels& pixels) override;
  void clip(const Box& box) override { clip_ = box; }
  void unclip() override { clip_.reset(); }

 private:
  std::string body_;
  double width_, height_;
  std::string label_;
  Palette palette_;
  std::optional<Box> clip_;
};

/// A drawing as an SVG element.
std::string svg_of(const Drawing& drawing, const Palette& palette = paper_palette());

}  // namespace sunbreak::drawing
