#include "drawing/time_plot.h"

#include <algorithm>
#include <cmath>

#include "drawing/light_scale.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double time_left_px = 62, time_right_px = 40, time_top_px = 26, time_bottom_px = 30, time_bar_px = 12;

}  // namespace

void draw_time_plot(Canvas& c, const Box& room, const std::vector<TimedEstimate>& estimates, const std::string& name,
                    double per) {
  if (estimates.empty()) return;
  const Palette& t = c.colors();
  const Box box{room.left + time_left_px, room.top + time_top_px, room.width - time_left_px - time_right_px,
                room.height - time_top_px - time_bottom_px};
  if (box.empty()) return;
  std::vector<double> values, expanded;
  double first = INFINITY, last = -INFINITY;
  for (const TimedEstimate& e : estimates) {
    values.push_back(e.value), expanded.push_back(e.expanded);
    first = std::min(first, e.day), last = std::max(last, e.day);
  }
  const IntervalAxis axis = interval_axis(values, expanded);
  const auto y_of = [&](double v) { return box.bottom() - box.height * (v - axis.low) / (axis.high - axis.low); };
  const double margin = 0.06 * box.width;
  const auto x_of = [&](double day) {
    return last > first ? box.left + margin + (box.width - 2 * margin) * (day - first) / (last - first)
                        : box.center().x;
  };
  c.fill(box, t.panel);
  c.text({room.left, room.top + 2, room.width, 16}, Align::Left, name, {12, false, t.ink});
  for (double at = std::ceil(axis.low / axis.step - 1e-9) * axis.step; at <= axis.high + 1e-9 * axis.step;
       at += axis.step) {
    c.line({box.left, y_of(at)}, {box.right(), y_of(at)}, {{t.rule, 0.6}, 1});
    c.text({room.left, y_of(at) - 7, time_left_px - 8, 14}, Align::Right,
           tick_text(std::abs(at) < axis.step / 2 ? 0 : at * per, axis.step * per), {11, false, t.quiet});
  }
  double written_to = -INFINITY;
  for (const TimedEstimate& e : estimates) {
    const Rgb& color = e.role == BarRole::Chosen ? t.ember : e.role == BarRole::Second ? t.lake : t.ink;
    const double x = x_of(e.day), off = std::isfinite(e.expanded) ? e.expanded : 0;
    c.fill({x - time_bar_px / 2, y_of(e.value + off), time_bar_px,
            std::max(1.0, y_of(e.value - off) - y_of(e.value + off))},
           {color, 0.32});
    c.line({x - time_bar_px, y_of(e.value)}, {x + time_bar_px, y_of(e.value)}, {color, 2.5});
    const double wide = c.text_width(e.date, 11, false) + 8;
    if (x - wide / 2 < written_to) continue;
    c.text({x - wide / 2, box.bottom() + 6, wide, 14}, Align::Center, e.date, {11, false, t.quiet});
    written_to = x + wide / 2;
  }
}

}  // namespace sunbreak::drawing
