#pragma once

#include <functional>
#include <string>

#include "drawing/canvas.h"

namespace sunbreak::drawing {

/// A drawing that is not on any canvas yet. It may refer to what it draws, which has to outlive it.
struct Drawing {
  double width = 0, height = 0;  ///< points
  std::string label;             ///< what it shows, in words
  std::function<void(Canvas&)> draw;
};

}  // namespace sunbreak::drawing
