#include "drawing/overlays.h"

#include <algorithm>

namespace sunbreak::drawing {
namespace {

constexpr int tag_pixels = 11;
constexpr double halo_opacity = 190 / 255.0;

/// A label that stays readable on any color, at the left end of what it names.
void tag(Canvas& c, const MapFit& fit, const Point& at, const std::string& words, const Rgb& ink) {
  const Box& f = fit.frame;
  Box box{at.x, at.y, c.text_width(words, tag_pixels, true) + 8, line_height(tag_pixels) + 2};
  box.left = std::clamp(box.left, f.left, std::max(f.left, f.right() - box.width));
  box.top = std::clamp(box.top, f.top, std::max(f.top, f.bottom() - box.height));
  c.fill(box, c.colors().panel);
  c.text(box, Align::Center, words, {tag_pixels, true, ink});
}

template <typename Draw>
void two_toned(Canvas& c, const Stroke& stroke, Draw draw) {
  draw(Stroke{{c.colors().panel, halo_opacity}, stroke.width + 2});
  draw(stroke);
}

void outline(Canvas& c, const Box& box, const Stroke& stroke) {
  two_toned(c, stroke, [&](const Stroke& s) { c.outline(box, s); });
}

Box centered(const MapFit& fit, const Rectangle& area, double width_m, double depth_m) {
  return fit.box(
      {area.left_m + (area.width_m - width_m) / 2, area.front_m + (area.depth_m - depth_m) / 2, width_m, depth_m});
}

}  // namespace

void draw_rings(Canvas& c, const MapFit& fit, const Layout& layout, const std::vector<Ring>& rings) {
  for (std::size_t i = 0; i + 1 < rings.size(); ++i) {
    const auto border = [&](const std::vector<double>& places) {
      return std::pair{(places[i] + places[i + 1]) / 2,
                       (places[places.size() - 1 - i] + places[places.size() - 2 - i]) / 2};
    };
    const auto [left, right] = border(layout.xs_m);
    const auto [front, back] = border(layout.ys_m);
    outline(c, fit.box({left, front, right - left, back - front}), {c.colors().lake, 1.4, Dash::Dotted});
  }
  for (std::size_t i = 0; i < rings.size(); ++i) {
    const Point at = fit.pixel(layout.xs_m[i], layout.ys_m[layout.ys_m.size() - 1 - i]);
    if (rings[i].read > 0) tag(c, fit, at - Point{14, 8}, ppfd_text(rings[i].mean_ppfd), c.colors().lake);
  }
}

void draw_nominal(Canvas& c, const MapFit& fit, const Layout& layout, const std::vector<NominalFootprint>& sizes,
                  UnitSystem units) {
  for (const NominalFootprint& n : sizes) {
    const Box box = centered(fit, layout.measured, n.size.width_m, n.size.depth_m);
    outline(c, box, {c.colors().ink, 1.2, Dash::Dashed});
    tag(c, fit, box.top_left() + Point{4, 2},
        (n.passes ? "● " : "○ ") + size_text(n.size.width_m, n.size.depth_m, units), c.colors().ink);
  }
}

void draw_fixture(Canvas& c, const MapFit& fit, const Footprint& floor, const FixtureOutline& o) {
  const Stroke dashes{c.colors().ink, 1.4, Dash::DashDotted};
  for (int unit = 0; unit < units_of(o); ++unit) {
    std::array<Point, 4> corners;
    const auto around = unit_corners(o, unit);
    for (std::size_t i = 0; i < corners.size(); ++i)
      corners[i] = fit.pixel(floor.width_m / 2 + around[i].x_m, floor.depth_m / 2 + around[i].y_m);
    if (o.turn_deg == 0)
      outline(c, {corners[3].x, corners[3].y, corners[1].x - corners[3].x, corners[1].y - corners[3].y}, dashes);
    else
      for (std::size_t i = 0; i < corners.size(); ++i)
        two_toned(c, dashes, [&](const Stroke& s) { c.line(corners[i], corners[(i + 1) % corners.size()], s); });
    if (unit == 0) tag(c, fit, corners.front() - Point{0, 16}, "fixture", c.colors().ink);
  }
}

void draw_coverage(Canvas& c, const MapFit& fit, const Layout& layout, const Coverage& coverage, UnitSystem units) {
  const Rgb& ember = c.colors().ember;
  if (const double side = coverage.largest_centered_circle_m; side > 0) {
    const Box box = centered(fit, layout.measured, side, side);
    two_toned(c, {ember, 1.4, Dash::Dashed}, [&](const Stroke& s) { c.ellipse(box, s); });
    tag(c, fit, {box.center().x - 40, box.bottom() - 18}, "circle " + length_text(side, units), ember);
  }
  const auto rectangle = [&](const Rectangle& r, const Stroke& stroke, const std::string& name, bool below) {
    if (r.area_m2() <= 0) return;
    const Box box = fit.box(r);
    outline(c, box, stroke);
    tag(c, fit, below ? box.bottom_left() + Point{4, -17} : box.top_left() + Point{4, 3},
        name + " " + size_text(r.width_m, r.depth_m, units), ember);
  };
  rectangle(coverage.largest_rectangle, {ember, 2}, "in band", false);
  if (!(coverage.largest_centered_rectangle == coverage.largest_rectangle))
    rectangle(coverage.largest_centered_rectangle, {ember, 1.4, Dash::Dashed}, "centered", true);
}

void draw_cut(Canvas& c, const MapFit& fit, const Place& from, const Place& to) {
  const Point a = fit.pixel(from.x_m, from.y_m), b = fit.pixel(to.x_m, to.y_m);
  two_toned(c, {c.colors().ink, 2}, [&](const Stroke& s) { c.line(a, b, s); });
  tag(c, fit, a + Point{2, 2}, "A", c.colors().ink);
  tag(c, fit, b + Point{-16, 2}, "B", c.colors().ink);
}

}  // namespace sunbreak::drawing
