#include "drawing/claim_axis.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/display.h"
#include "drawing/light_scale.h"

namespace sunbreak::drawing {
namespace {

constexpr double margin_share = 0.18, least_span_share = 0.12, words_px = 14, bar_px = 8;
constexpr int axis_letters = 10, most_ticks = 4;

/// What an axis spans so that all that is known lies well within it.
struct Span {
  double low = INFINITY, high = -INFINITY;
  void take(double value) {
    if (std::isfinite(value)) low = std::min(low, value), high = std::max(high, value);
  }
};

}  // namespace

void draw_claim_axis(Canvas& canvas, const Box& room, const ClaimAxis& a) {
  Span span;
  for (const double value : {a.claimed, a.claimed_to, a.measured, a.measured_to}) span.take(value);
  if (std::isfinite(a.measured) && std::isfinite(a.expanded))
    span.take(a.measured - a.expanded), span.take(a.measured + a.expanded);
  if (!(span.low <= span.high)) return;
  const double least = least_span_share * std::max(std::abs(span.low), std::abs(span.high)),
               widen = std::max(0.0, least - (span.high - span.low)) / 2,
               margin = margin_share * (span.high - span.low + 2 * widen);
  const bool positive = span.low >= 0;
  span.low -= widen + margin, span.high += widen + margin;
  if (positive) span.low = std::max(span.low, 0.0);
  if (!(span.high > span.low)) span.high = span.low + 1;
  const auto x_of = [&](double value) { return room.left + room.width * (value - span.low) / (span.high - span.low); };
  const double axis_y = room.bottom() - words_px, top = room.top, middle = (top + axis_y) / 2;
  const Palette& colors = canvas.colors();
  canvas.line({room.left, axis_y}, {room.right(), axis_y}, {colors.rule});
  const double step = round_step(span.high - span.low, most_ticks);
  for (double tick = std::ceil(span.low / step) * step; tick <= span.high + step * 1e-9; tick += step) {
    const double x = x_of(tick);
    canvas.line({x, axis_y}, {x, axis_y + 3}, {colors.quiet});
    if (x > room.left + 8 && x < room.right() - 8)
      canvas.text({x - 30, axis_y + 2, 60, words_px - 2}, Align::Center,
                  short_number(std::abs(tick) < step / 2 ? 0 : tick, 3), {axis_letters, false, colors.quiet});
  }
  if (std::isfinite(a.measured)) {
    const bool range = std::isfinite(a.measured_to);
    const double from = range ? a.measured : a.measured - (std::isfinite(a.expanded) ? a.expanded : 0),
                 to = range ? a.measured_to : a.measured + (std::isfinite(a.expanded) ? a.expanded : 0);
    canvas.fill({x_of(from), middle - bar_px / 2, std::max(x_of(to) - x_of(from), 1.0), bar_px}, {colors.lake, 0.35});
    for (const double value : {a.measured, range ? a.measured_to : a.measured})
      canvas.line({x_of(value), middle - bar_px + 1}, {x_of(value), middle + bar_px - 1}, {colors.lake, 2.5});
  }
  if (std::isfinite(a.claimed)) {
    const bool range = std::isfinite(a.claimed_to);
    for (const double value : {a.claimed, range ? a.claimed_to : a.claimed})
      canvas.line({x_of(value), top}, {x_of(value), axis_y}, {colors.ember, 1.6});
    if (range) canvas.line({x_of(a.claimed), top + 1}, {x_of(a.claimed_to), top + 1}, {colors.ember, 1.6});
  }
}

}  // namespace sunbreak::drawing
