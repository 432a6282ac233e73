#include "drawing/control_chart.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "drawing/light_scale.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double chart_left_px = 62, chart_right_px = 24, chart_top_px = 30, chart_bottom_px = 30, dot_px = 3;

}  // namespace

ControlChart control_chart(const evaluation::LampBoard& board, const LampChart& chart) {
  ControlChart drawn;
  const ControlLimits limits;
  drawn.limit_pct = 100 * chart.single_limit(limits);
  // The mean of many readings has a spread of its own, which its limit is told in.
  const double mean_sd = chart.sd * std::sqrt(limits.ewma_weight / (2 - limits.ewma_weight));
  drawn.mean_limit_pct = 100 * limits.ewma_limit * mean_sd;
  double mean_pct = 0;
  for (std::size_t i = 0; i < chart.readings.size(); ++i) {
    const double off_pct = 100 * std::expm1(chart.level[i] - chart.center);
    mean_pct += limits.ewma_weight * (off_pct - mean_pct);
    const bool odd = std::ranges::find(chart.odd_shape, i) != chart.odd_shape.end() ||
                     std::ranges::find(chart.odd_watts, i) != chart.odd_watts.end();
    drawn.values.push_back({board.readings[chart.readings[i]].day, board.days[chart.readings[i]], off_pct,
                            std::isfinite(chart.ewma[i]) ? mean_pct : NAN, odd});
  }
  if (chart.move) {
    drawn.moved = true;
    drawn.moved_day = board.readings[chart.readings[chart.move->since]].day;
    drawn.moved_pct = 100 * chart.move->change, drawn.moved_expanded_pct = 100 * chart.move->expanded;
  }
  return drawn;
}

void draw_control_chart(Canvas& c, const Box& room, const ControlChart& chart) {
  if (chart.values.empty()) return;
  const Palette& t = c.colors();
  const Box box{room.left + chart_left_px, room.top + chart_top_px, room.width - chart_left_px - chart_right_px,
                room.height - chart_top_px - chart_bottom_px};
  if (box.empty()) return;
  double most = chart.limit_pct;
  for (const ChartedValue& v : chart.values) most = std::max(most, std::fabs(v.off_pct));
  if (!(most > 0)) most = 0.1;
  const double half = 1.1 * most;
  const auto y_of = [&](double pct) { return box.center().y - box.height / 2 * pct / half; };
  const double first = chart.values.front().day, last = chart.values.back().day;
  const auto x_of = [&](double day) {
    return last > first ? box.left + 10 + (box.width - 20) * (day - first) / (last - first) : box.center().x;
  };
  c.fill(box, t.panel);
  c.text({room.left, room.top + 4, room.width, 16}, Align::Left,
         "light of the check lamp, % from the center line; dots each day, line the weighted mean", {12, false, t.ink});
  const double step = round_step(2 * half, 6);
  for (double at = std::ceil(-half / step) * step; at <= half; at += step) {
    c.line({box.left, y_of(at)}, {box.right(), y_of(at)}, {{t.rule, 0.6}, 1});
    c.text({room.left, y_of(at) - 7, chart_left_px - 8, 14}, Align::Right,
           tick_text(std::fabs(at) < step / 2 ? 0 : at, step), {11, false, t.quiet});
  }
  c.line({box.left, y_of(0)}, {box.right(), y_of(0)}, {{t.ink, 0.7}, 1});
  for (const double sign : {-1.0, 1.0}) {
    if (chart.limit_pct <= half)
      c.line({box.left, y_of(sign * chart.limit_pct)}, {box.right(), y_of(sign * chart.limit_pct)},
             {{t.ink, 0.8}, 1, Dash::Dashed});
    if (chart.mean_limit_pct <= half)
      c.line({box.left, y_of(sign * chart.mean_limit_pct)}, {box.right(), y_of(sign * chart.mean_limit_pct)},
             {{t.lake, 0.9}, 1, Dash::Dotted});
  }
  c.clip(box);
  std::vector<Point> mean;
  for (const ChartedValue& v : chart.values)
    if (std::isfinite(v.mean_pct)) mean.push_back({x_of(v.day), y_of(v.mean_pct)});
  if (mean.size() > 1) c.lines(mean, {{t.lake, 1}, 2});
  for (const ChartedValue& v : chart.values) {
    const Box dot = Box::about({x_of(v.day), y_of(v.off_pct)}, 2 * dot_px, 2 * dot_px);
    if (v.odd)
      c.ellipse(dot, {{t.quiet, 1}, 1.5});
    else
      c.fill(dot, {t.ink, 0.85});
  }
  if (chart.moved) {
    const double x = x_of(chart.moved_day);
    c.line({x, box.top}, {x, box.bottom()}, {{t.ember, 1}, 2});
    const double top = y_of(chart.moved_pct + chart.moved_expanded_pct),
                 bottom = y_of(chart.moved_pct - chart.moved_expanded_pct);
    c.fill({x, top, box.right() - x, std::max(1.0, bottom - top)}, {t.ember, 0.2});
  }
  c.unclip();
  double written_to = -INFINITY;
  for (const ChartedValue& v : chart.values) {
    const double wide = c.text_width(v.date, 11, false) + 12, x = x_of(v.day);
    if (x - wide / 2 < written_to || x + wide / 2 > room.right()) continue;
    c.text({x - wide / 2, box.bottom() + 6, wide, 14}, Align::Center, v.date, {11, false, t.quiet});
    written_to = x + wide / 2;
  }
}

}  // namespace sunbreak::drawing
