#pragma once

#include <vector>

#include "core/sweep/field.h"

namespace sunbreak {

/// Area of the field at or above a PPFD, against that PPFD. Exact for the raster's samples; they are kept in slots of
/// like values rather than sorted, which takes one pass.
class AreaCurve {
 public:
  explicit AreaCurve(const Raster& raster);

  /// Area [m²] whose PPFD is known and at or above `ppfd`.
  double area_m2_at_or_above(double ppfd) const;

 private:
  int slot(double ppfd) const;

  double lowest_ = 0, slots_per_ppfd_ = 0, sample_area_m2_ = 0;
  std::vector<int> first_;       ///< of each slot in samples_, and one past the end
  std::vector<double> samples_;  ///< by slot, dimmest slot first
};

}  // namespace sunbreak
