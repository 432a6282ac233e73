#include "drawing/interval_axis.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"
#include "drawing/light_scale.h"
#include "drawing/value_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double interval_margin_share = 0.04, from_zero_share = 0.45, interval_bar_px = 10, interval_tick_px = 16;
constexpr int interval_steps = 6, interval_letters = 11;

}  // namespace

IntervalAxis interval_axis(std::span<const double> values, std::span<const double> expanded) {
  double low = INFINITY, high = -INFINITY;
  for (std::size_t i = 0; i < values.size(); ++i) {
    if (!std::isfinite(values[i])) continue;
    const double off = std::isfinite(expanded[i]) ? expanded[i] : 0;
    low = std::min(low, values[i] - off), high = std::max(high, values[i] + off);
  }
  if (!(low <= high)) return {};
  if (low >= 0 && low < from_zero_share * high) low = 0;
  const double span = high > low ? high - low : std::max(std::abs(high), 1.0) * 0.2,
               margin = interval_margin_share * span;
  IntervalAxis axis{low == 0 ? 0 : low - margin, high + margin, 1};
  if (low > 0) axis.low = std::max(0.0, axis.low);
  axis.step = round_step(axis.high - axis.low, interval_steps);
  return axis;
}

void draw_interval(Canvas& canvas, const Box& room, const IntervalAxis& axis, double value, double expanded,
                   BarRole role) {
  if (!std::isfinite(value)) return;
  const Palette& t = canvas.colors();
  const Rgb& color = role == BarRole::Chosen ? t.ember : role == BarRole::Second ? t.lake : t.ink;
  const double off = std::isfinite(expanded) ? expanded : 0, middle = room.center().y,
               from = std::max(room.left, axis.x(room, value - off)),
               to = std::min(room.right(), axis.x(room, value + off));
  canvas.fill({from, middle - interval_bar_px / 2, std::max(1.0, to - from), interval_bar_px}, {color, 0.32});
  const double x = axis.x(room, value);
  canvas.line({x, middle - interval_tick_px / 2}, {x, middle + interval_tick_px / 2}, {color, 2.5});
}

void draw_interval_labels(Canvas& canvas, const Box& labels, const Box& rows, const IntervalAxis& axis,
                          double shown_per_stored) {
  constexpr double air_px = 6;
  const Palette& t = canvas.colors();
  double taken_until = -INFINITY;  // a number that would touch the one before is left out
  for (double at = std::ceil(axis.low / axis.step - 1e-9) * axis.step; at <= axis.high + 1e-9 * axis.step;
       at += axis.step) {
    const double x = axis.x(rows, at);
    if (!rows.empty()) canvas.line({x, rows.top}, {x, rows.bottom()}, {{t.rule, 0.6}, 1});
    const std::string number =
        tick_text(std::abs(at) < axis.step / 2 ? 0 : at * shown_per_stored, axis.step * shown_per_stored);
    const double half = canvas.text_width(number, interval_letters, false) / 2;
    if (x - half < taken_until) continue;
    taken_until = x + half + air_px;
    canvas.text({x - 40, labels.top, 80, labels.height}, Align::Center, number, {interval_letters, false, t.quiet});
  }
}

void draw_tie_bracket(Canvas& canvas, double x, double top, double bottom) {
  constexpr double serif_px = 4;
  const Stroke stroke{canvas.colors().quiet, 1.5};
  canvas.lines({{x - serif_px, top}, {x, top}, {x, bottom}, {x - serif_px, bottom}}, stroke);
}

}  // namespace sunbreak::drawing
