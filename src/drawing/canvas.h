#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "drawing/geometry.h"
#include "drawing/light_scale.h"

namespace sunbreak::drawing {

struct Ink {
  Rgb color;
  double opacity = 1;

  Ink(const Rgb& c, double o = 1) : color(c), opacity(o) {}
};

enum class Dash { Solid, Dashed, Dotted, DashDotted };

struct Stroke {
  Ink ink;
  double width = 1;
  Dash dash = Dash::Solid;
};

struct Lettering {
  int pixels = 11;
  bool bold = false;
  Ink ink;
};

enum class Align { Left, Center, Right };

/// What shows where light is out of a band: diagonals where too dim, dots where too bright.
enum class Hatch { TooDim, TooBright };

/// The colors a drawing is made with, by what they are for.
struct Palette {
  Rgb ground, panel, ink, quiet, rule, ember, lake;
  bool dark = false;
};

/// Dark ink on light paper, as pages are printed.
const Palette& paper_palette();

/// A picture of its own pixels, 0xAARRGGBB with the color multiplied by alpha, top row first.
struct Pixels {
  int columns = 0, rows = 0;
  std::vector<std::uint32_t> argb{};
  std::string jpeg{};  ///< the same picture as a file, where it came as one: papers keep that
};

/// What drawings are painted on. A drawing is written once against this; the backends are SvgCanvas and the desktop's
/// painter. Coordinates are in points of the drawing. Not for several threads at once.
class Canvas {
 public:
  virtual ~Canvas() = default;

  virtual const Palette& colors() const = 0;
  /// Pixels of the device to a point of the drawing: how fine a Pixels picture is worth making.
  virtual double pixels_a_point() const = 0;
  virtual double text_width(const std::string& words, int pixels, bool bold) const = 0;

  virtual void fill(const Box& box, const Ink& ink) = 0;
  virtual void outline(const Box& box, const Stroke& stroke) = 0;
  virtual void line(const Point& from, const Point& to, const Stroke& stroke) = 0;
  virtual void lines(const std::vector<Point>& points, const Stroke& stroke) = 0;
  virtual void ellipse(const Box& box, const Stroke& stroke) = 0;
  virtual void hatch(const Box& box, Hatch kind) = 0;
  /// Words on one line, centered in the height of the room.
  virtual void text(const Box& room, Align align, const std::string& words, const Lettering& lettering) = 0;
  virtual void pixels(const Box& box, const Pixels& pixels) = 0;

  /// Nothing outside the box is painted, until unclip().
  virtual void clip(const Box& box) = 0;
  virtual void unclip() = 0;
};

/// The height a line of text takes [px].
inline double line_height(int pixels) { return 1.25 * pixels; }

}  // namespace sunbreak::drawing
