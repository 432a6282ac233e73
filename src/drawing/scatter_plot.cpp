#include "drawing/scatter_plot.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"
#include "drawing/light_scale.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double scatter_left_px = 62, scatter_right_px = 18, scatter_top_px = 26, scatter_bottom_px = 44,
                 scatter_dot_px = 8;
constexpr int scatter_letters = 11;

struct ScatterAxes {
  IntervalAxis x, y;
};

ScatterAxes scatter_axes(const ScatterPlot& plot) {
  std::vector<double> x, y, ux, uy;
  for (const ScatterPoint& p : plot.points)
    x.push_back(p.x), y.push_back(p.y), ux.push_back(p.x_expanded), uy.push_back(p.y_expanded);
  return {interval_axis(x, ux), interval_axis(y, uy)};
}

Point at_values(const Box& box, const ScatterAxes& axes, double x, double y) {
  return {axes.x.x(box, x), box.bottom() - box.height * (y - axes.y.low) / (axes.y.high - axes.y.low)};
}

Box scatter_box(const Box& room) {
  return {room.left + scatter_left_px, room.top + scatter_top_px, room.width - scatter_left_px - scatter_right_px,
          room.height - scatter_top_px - scatter_bottom_px};
}

}  // namespace

void mark_frontier(ScatterPlot& plot) {
  const auto good_x = [&](const ScatterPoint& p) { return plot.less_x_is_better ? -p.x : p.x; };
  const auto good_y = [&](const ScatterPoint& p) { return plot.less_y_is_better ? -p.y : p.y; };
  for (ScatterPoint& p : plot.points)
    p.on_frontier = std::ranges::none_of(plot.points, [&](const ScatterPoint& o) {
      return good_x(o) >= good_x(p) && good_y(o) >= good_y(p) && (good_x(o) > good_x(p) || good_y(o) > good_y(p));
    });
}

void draw_scatter(Canvas& c, const Box& room, const ScatterPlot& plot) {
  const Palette& t = c.colors();
  const Box box = scatter_box(room);
  if (box.empty() || plot.points.empty()) return;
  const ScatterAxes axes = scatter_axes(plot);
  c.fill(box, t.panel);
  draw_interval_labels(c, {box.left, box.bottom() + 5, box.width, 14}, box, axes.x, plot.x_per_stored);
  for (double at = std::ceil(axes.y.low / axes.y.step - 1e-9) * axes.y.step; at <= axes.y.high + 1e-9 * axes.y.step;
       at += axes.y.step) {
    const double y = at_values(box, axes, axes.x.low, at).y;
    c.line({box.left, y}, {box.right(), y}, {{t.rule, 0.6}, 1});
    c.text({room.left, y - 7, scatter_left_px - 8, 14}, Align::Right,
           tick_text(std::abs(at) < axes.y.step / 2 ? 0 : at * plot.y_per_stored, axes.y.step * plot.y_per_stored),
           {scatter_letters, false, t.quiet});
  }
  c.text({box.left, box.bottom() + 22, box.width, 16}, Align::Center, plot.x_name, {12, false, t.ink});
  c.text({room.left, room.top + 2, room.width, 16}, Align::Left, plot.y_name, {12, false, t.ink});

  std::vector<ScatterPoint> frontier;
  for (const ScatterPoint& p : plot.points)
    if (p.on_frontier) frontier.push_back(p);
  std::ranges::sort(frontier, {}, &ScatterPoint::x);
  std::vector<Point> line;
  for (std::size_t i = 0; i < frontier.size(); ++i) {
    // Toward what is worse in both: what lies beyond the steps is reached by none.
    if (i > 0)
      line.push_back(plot.less_x_is_better ? at_values(box, axes, frontier[i].x, frontier[i - 1].y)
                                           : at_values(box, axes, frontier[i - 1].x, frontier[i].y));
    line.push_back(at_values(box, axes, frontier[i].x, frontier[i].y));
  }
  if (line.size() > 1) c.lines(line, {{t.quiet, 0.8}, 1.2, Dash::Dashed});

  std::vector<Box> taken;
  const auto crowded = [&](const Box& b) {
    return std::ranges::any_of(taken, [&](const Box& other) { return other.intersects(b); });
  };
  for (const ScatterPoint& p : plot.points)
    taken.push_back(Box::about(at_values(box, axes, p.x, p.y), scatter_dot_px, scatter_dot_px));
  // Those under the hand last, on top, and named first.
  std::vector<const ScatterPoint*> order;
  for (const ScatterPoint& p : plot.points) order.push_back(&p);
  std::ranges::stable_sort(order, {}, [](const ScatterPoint* p) { return p->role != BarRole::Plain; });
  for (const ScatterPoint* p : order) {
    const Rgb& color = p->role == BarRole::Chosen ? t.ember : p->role == BarRole::Second ? t.lake : t.ink;
    const Point at = at_values(box, axes, p->x, p->y);
    const double opacity = p->role == BarRole::Plain ? 0.45 : 0.9;
    c.line(at_values(box, axes, p->x - p->x_expanded, p->y), at_values(box, axes, p->x + p->x_expanded, p->y),
           {{color, opacity}, 1.4});
    c.line(at_values(box, axes, p->x, p->y - p->y_expanded), at_values(box, axes, p->x, p->y + p->y_expanded),
           {{color, opacity}, 1.4});
    if (p->on_frontier)
      c.fill(Box::about(at, scatter_dot_px, scatter_dot_px), color);
    else
      c.ellipse(Box::about(at, scatter_dot_px, scatter_dot_px), {color, 1.6});
  }
  std::ranges::reverse(order);
  for (const ScatterPoint* p : order) {
    const Point at = at_values(box, axes, p->x, p->y);
    const bool bold = p->role != BarRole::Plain;
    const double wide = c.text_width(p->name, scatter_letters, bold) + 4;
    for (const Box& b : {Box{at.x + 8, at.y - 18, wide, 14}, Box{at.x - wide - 8, at.y - 18, wide, 14},
                         Box{at.x + 8, at.y + 5, wide, 14}, Box{at.x - wide - 8, at.y + 5, wide, 14}}) {
      if (!box.contains(b) || crowded(b)) continue;
      c.text(b, Align::Left, p->name, {scatter_letters, bold, t.ink});
      taken.push_back(b);
      break;
    }
  }
}

}  // namespace sunbreak::drawing
