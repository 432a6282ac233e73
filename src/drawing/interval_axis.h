#pragma once

#include <span>
#include <string>

#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// An axis that the bars of several estimates share.
struct IntervalAxis {
  double low = 0, high = 1, step = 1;  ///< of its labels

  double x(const Box& room, double value) const { return room.left + room.width * (value - low) / (high - low); }
};

/// An axis on which all values lie with their ± (k = 2); NaN is left out. From 0 where that costs little of its length.
IntervalAxis interval_axis(std::span<const double> values, std::span<const double> expanded);

/// How a bar stands among the others: plainly, under the hand (ember), as the second one chosen (lake).
enum class BarRole { Plain, Chosen, Second };

/// The bar of an estimate: as long as its ±, with a tick at the value.
void draw_interval(Canvas& canvas, const Box& room, const IntervalAxis& axis, double value, double expanded,
                   BarRole role);

/// The labels of the axis, values times `shown_per_stored`, with thin lines up through `rows`.
void draw_interval_labels(Canvas& canvas, const Box& labels, const Box& rows, const IntervalAxis& axis,
                          double shown_per_stored);

/// A bracket beside rows that are ties of each other.
void draw_tie_bracket(Canvas& canvas, double x, double top, double bottom);

}  // namespace sunbreak::drawing
