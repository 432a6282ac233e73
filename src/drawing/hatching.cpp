#include "drawing/hatching.h"

#include <cmath>

namespace sunbreak::drawing {

Ink hatch_ink(Hatch kind) {
  if (kind == Hatch::TooDim) return {{255, 253, 246}, dim_share / 256.0};
  return {{20, 27, 31}, bright_share / 256.0};
}

void for_diagonals(const Box& box, const std::function<void(const Point&, const Point&)>& line) {
  for (double sum = std::ceil((box.left + box.top) / hatch_pitch) * hatch_pitch; sum < box.right() + box.bottom();
       sum += hatch_pitch) {
    const double x0 = std::max(box.left, sum - box.bottom()), x1 = std::min(box.right(), sum - box.top);
    if (x1 > x0) line({x0, sum - x0}, {x1, sum - x1});
  }
}

void for_dots(const Box& box, const std::function<void(const Point&)>& dot) {
  const auto first = [](double from) { return std::ceil(from / dot_pitch) * dot_pitch; };
  for (double y = first(box.top); y < box.bottom(); y += dot_pitch)
    for (double x = first(box.left); x < box.right(); x += dot_pitch) dot({x, y});
}

}  // namespace sunbreak::drawing
