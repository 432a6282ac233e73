#pragma once

#include <span>
#include <vector>

#include "core/lineup/ranking.h"

namespace sunbreak {

/// One of the figures that dominance looks at: light, evenness, watts, price.
struct DominanceAxis {
  std::vector<Standing> standings;  ///< one an entry
  Better better = Better::More;
};

/// For each entry those that dominate it: that have no worse value on any axis, and are better on one beyond the
/// uncertainty of the difference (k = 2). A value that is worse within its uncertainty is not as good: nobody has shown
/// that it is. Only pairs that may be compared, and that have all figures. In ascending order.
std::vector<std::vector<int>> dominated_by(std::span<const DominanceAxis> axes,
                                           const Comparability* comparable = nullptr);

/// The entries that have all figures and that none dominates.
std::vector<int> frontier(std::span<const DominanceAxis> axes, std::span<const std::vector<int>> dominated);

}  // namespace sunbreak
