#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "paper/cairo_canvas.h"

namespace sunbreak::paper {

/// A strip of a page that is never split [px of the page].
struct Slice {
  double height = 0;
  double space_before = 0;  ///< not at the top of a page
  std::function<void(CairoCanvas& canvas, double left, double top)> draw;
  bool stays_with_next = false;
  int heading = -1;                                 ///< which of the contents' it is; −1: none
  std::shared_ptr<const std::vector<Slice>> above;  ///< what is repeated where a page begins with it
};
using Slices = std::vector<Slice>;

inline double height_of(const Slices& slices) {
  double height = 0;
  for (const Slice& s : slices) height += s.space_before + s.height;
  return height;
}

/// All of them as one that is not split.
Slice together(Slices slices);

/// Where slices come to stand.
struct Placed {
  const Slice* slice = nullptr;
  double top = 0;
};
/// Puts slices on pages of a height, in their order.
std::vector<std::vector<Placed>> paginated(const Slices& slices, double page_height);

}  // namespace sunbreak::paper
