#include "drawing/curve_overlay.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/quantity/display.h"
#include "drawing/light_scale.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double overlay_left_px = 56, overlay_right_px = 14, overlay_top_px = 24, overlay_bottom_px = 40,
                 overlay_legend_px = 16;
constexpr int overlay_letters = 11, overlay_steps = 5;

}  // namespace

void draw_curves(Canvas& c, const Box& room, const CurveOverlay& overlay) {
  const Palette& t = c.colors();
  double most_x = 0, most_y = 0;
  for (const OverlaidCurve& curve : overlay.curves)
    for (const Point& p : curve.points)
      if (std::isfinite(p.y)) most_x = std::max(most_x, p.x), most_y = std::max(most_y, p.y);
  if (!(most_x > 0) || !(most_y > 0)) return;
  // Named below, as many lines as they take.
  double legend_lines = 1, at_x = room.left + overlay_left_px;
  for (const OverlaidCurve& curve : overlay.curves) {
    const double wide = c.text_width(curve.name, overlay_letters, false) + 34;
    if (at_x + wide > room.right()) at_x = room.left + overlay_left_px, ++legend_lines;
    at_x += wide;
  }
  const Box box{room.left + overlay_left_px, room.top + overlay_top_px, room.width - overlay_left_px - overlay_right_px,
                room.height - overlay_top_px - overlay_bottom_px - legend_lines * overlay_legend_px};
  if (box.empty()) return;
  most_y *= 1.06;
  const auto place = [&](const Point& p) {
    return Point{box.left + box.width * p.x / most_x, box.bottom() - box.height * p.y / most_y};
  };
  c.fill(box, t.panel);
  const double step_x = round_step(most_x, overlay_steps), step_y = round_step(most_y, overlay_steps);
  for (double at = 0; at <= most_x * (1 + 1e-9); at += step_x)
    c.text({place({at, 0}).x - 30, box.bottom() + 4, 60, 14}, Align::Center, tick_text(at, step_x),
           {overlay_letters, false, t.quiet});
  for (double at = 0; at <= most_y; at += step_y) {
    const double y = place({0, at}).y;
    c.line({box.left, y}, {box.right(), y}, {{t.rule, 0.6}, 1});
    c.text({room.left, y - 7, overlay_left_px - 8, 14}, Align::Right, tick_text(at, step_y),
           {overlay_letters, false, t.quiet});
  }
  c.text({box.left, box.bottom() + 20, box.width, 15}, Align::Center, overlay.x_name, {12, false, t.ink});
  c.text({room.left, room.top + 2, room.width, 16}, Align::Left, overlay.y_name, {12, false, t.ink});
  // Plain ones are told apart by their dashes and grays, the chosen two by their colors.
  constexpr std::array dashes{Dash::Solid, Dash::Dashed, Dash::Dotted, Dash::DashDotted};
  const auto stroke_of = [&](std::size_t number, const OverlaidCurve& curve) {
    if (curve.role == BarRole::Chosen) return Stroke{t.ember, 2.6};
    if (curve.role == BarRole::Second) return Stroke{t.lake, 2.6};
    const double opacity = number / dashes.size() % 2 == 0 ? 0.75 : 0.45;
    return Stroke{{t.ink, opacity}, 1.4, dashes[number % dashes.size()]};
  };
  for (const bool chosen : {false, true})
    for (std::size_t n = 0; n < overlay.curves.size(); ++n) {
      const OverlaidCurve& curve = overlay.curves[n];
      if ((curve.role != BarRole::Plain) != chosen) continue;
      std::vector<Point> line;
      for (const Point& p : curve.points) {
        if (std::isfinite(p.y)) {
          line.push_back(place(p));
          continue;
        }
        if (line.size() > 1) c.lines(line, stroke_of(n, curve));
        line.clear();
      }
      if (line.size() > 1) c.lines(line, stroke_of(n, curve));
    }
  double x = box.left, y = room.bottom() - legend_lines * overlay_legend_px;
  for (std::size_t n = 0; n < overlay.curves.size(); ++n) {
    const OverlaidCurve& curve = overlay.curves[n];
    const bool bold = curve.role != BarRole::Plain;
    const double wide = c.text_width(curve.name, overlay_letters, bold) + 34;
    if (x + wide > room.right() && x > box.left) x = box.left, y += overlay_legend_px;
    c.line({x, y + overlay_legend_px / 2}, {x + 20, y + overlay_legend_px / 2}, stroke_of(n, curve));
    c.text({x + 25, y, wide - 26, overlay_legend_px}, Align::Left, curve.name, {overlay_letters, bold, t.ink});
    x += wide;
  }
}

}  // namespace sunbreak::drawing
