#pragma once

#include <functional>

#include "drawing/canvas.h"

struct _cairo;

namespace sunbreak::paper {

/// A drawing's third backend: PDF pages with vector shapes and real letters, and pictures. Letters are of the shipped
/// face; what it does not have is told in its empty box.
class CairoCanvas : public drawing::Canvas {
 public:
  /// Paints on `target`, which has to outlive it, in points of the drawing.
  CairoCanvas(_cairo* target, double pixels_a_point, const drawing::Palette& palette = drawing::paper_palette());

  const drawing::Palette& colors() const override { return palette_; }
  double pixels_a_point() const override { return pixels_a_point_; }
  double text_width(const std::string& words, int pixels, bool bold) const override;
  void fill(const drawing::Box& box, const drawing::Ink& ink) override;
  void outline(const drawing::Box& box, const drawing::Stroke& stroke) override;
  void line(const drawing::Point& from, const drawing::Point& to, const drawing::Stroke& stroke) override;
  void lines(const std::vector<drawing::Point>& points, const drawing::Stroke& stroke) override;
  void ellipse(const drawing::Box& box, const drawing::Stroke& stroke) override;
  void hatch(const drawing::Box& box, drawing::Hatch kind) override;
  void text(const drawing::Box& room, drawing::Align align, const std::string& words,
            const drawing::Lettering& lettering) override;
  void pixels(const drawing::Box& box, const drawing::Pixels& pixels) override;
  void clip(const drawing::Box& box) override;
  void unclip() override;

  /// Draws with the point `at` as the origin and everything `by` times as large.
  void scaled(const drawing::Point& at, double by, const std::function<void()>& draw);
  /// A box of the page that leads to a place on another one, counted from 1 [pt].
  void link(const drawing::Box& box, int page, double top);

 private:
  void use(const drawing::Ink& ink);
  void stroke(const drawing::Stroke& stroke);
  void take_face(int pixels, bool bold) const;

  _cairo* target_;
  double pixels_a_point_;
  drawing::Palette palette_;
};

}  // namespace sunbreak::paper
