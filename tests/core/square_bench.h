#pragma once

#include "core/bench/grid.h"

namespace sunbreak {

inline constexpr Footprint square{1.2, 1.2};

inline Layout cells(int columns, int rows, const Footprint& footprint = square) {
  return lay_out(footprint, {GridKind::Cells, columns, rows, 0, 0, {}}).value();
}

}  // namespace sunbreak
