#pragma once

#include <QBrush>
#include <QPainter>

#include "drawing/canvas.h"

namespace sunbreak::desktop {

/// Paints a drawing into a window, a picture or a printer, in the colors of the present look. The painter is the
/// caller's and outlives this; its state is as before at the end.
class PainterCanvas final : public drawing::Canvas {
 public:
  /// `in_vectors`: for pictures in vectors, without brushes that only screens know.
  explicit PainterCanvas(QPainter& p, bool in_vectors = false);
  ~PainterCanvas() override;
  PainterCanvas(const PainterCanvas&) = delete;
  PainterCanvas& operator=(const PainterCanvas&) = delete;

  const drawing::Palette& colors() const override { return palette_; }
  double pixels_a_point() const override;
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

 private:
  void set_pen(const drawing::Stroke& stroke);
  void set_font(int pixels, bool bold) const;

  QPainter& p_;
  bool in_vectors_;
  drawing::Palette palette_;
  QBrush tiles_[2];
  mutable int font_pixels_ = 0;  ///< of the painter's font now
  mutable bool font_bold_ = false;
};

/// The colors of the look that the application is in.
drawing::Palette palette_of_look();

QColor qcolor(const drawing::Rgb& c);

}  // namespace sunbreak::desktop
