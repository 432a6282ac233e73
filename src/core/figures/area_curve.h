#pragma once

#include <vector>

#include "core/sweep/field.h"

namespace sunbreak {

/// Area of the field at or above a PPFD, against that PPFD.
class AreaCurve {
 public:
  explicit AreaCurve(const Raster& raster);

  /// Area [m²] whose PPFD is known and at or above `ppfd`.
  double area_m2_at_or_above(double ppfd) const;

 private:
  std::vector<double> ascending_;
  double sample_area_m2_ = 0;
};

}  // namespace sunbreak
