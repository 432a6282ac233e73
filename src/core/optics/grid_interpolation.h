#pragma once

#include <span>
#include <vector>

#include "core/optics/form_factor.h"

namespace sunbreak {

/// A fine patch among the coarse ones around it.
struct Interpolation {
  std::size_t patch[4];
  double weight[4];
};

/// Values of a side's coarse patches at the middles of its fine ones: bilinear between the coarse middles, the outer
/// value to the side's edges.
class GridInterpolation {
 public:
  GridInterpolation(const PatchGrid& coarse, const PatchGrid& fine);

  Interpolation at(std::size_t fine_patch) const;
  /// Adds to each coarse patch what the fine ones weigh by it: Σ weight · value, a value a fine patch.
  void add_to_coarse(std::span<const double> fine, std::span<double> coarse) const;

 private:
  /// A place of a line between two of its middles.
  struct Between {
    std::size_t low = 0, high = 0;
    double share = 0;  ///< of the higher one
  };
  static std::vector<Between> between_middles(const std::vector<double>& coarse_edges,
                                              const std::vector<double>& fine_edges);

  std::vector<Between> columns_, rows_;
  std::size_t coarse_columns_, coarse_rows_;
};

}  // namespace sunbreak
