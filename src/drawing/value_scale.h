#pragma once

#include <string>

#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// How values are colored: light by the light scale, differences from lake over the ground at zero to ember.
struct ValueScale {
  ScaleRange range;
  bool diverging = false;  ///< the range is symmetric about 0

  Rgb color(double value, const Palette& palette) const;
};

/// How values are written.
struct ValueText {
  int decimals = -1;  ///< −1: as PPFD is written
  bool with_sign = false;
  std::string unit = "µmol/m²/s";

  std::string text(double value) const;
};

/// A number along a scale, with a true minus sign; what is zero but for arithmetic is 0.
std::string tick_text(double value, double step);

}  // namespace sunbreak::drawing
