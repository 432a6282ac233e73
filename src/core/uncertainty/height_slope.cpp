#include "core/uncertainty/height_slope.h"

#include <cmath>

namespace sunbreak {
namespace {
constexpr double same_rung_m = 1e-4;
}

std::vector<double> height_slope(std::span<const RungLight> rungs, double height_m) {
  const RungLight *here = nullptr, *above = nullptr, *below = nullptr;
  for (const RungLight& rung : rungs) {
    if (std::abs(rung.height_m - height_m) < same_rung_m)
      here = &rung;
    else if (rung.height_m > height_m && (!above || rung.height_m < above->height_m))
      above = &rung;
    else if (rung.height_m < height_m && (!below || rung.height_m > below->height_m))
      below = &rung;
  }
  if (!here || (!above && !below)) return {};
  std::vector<double> slopes;
  for (std::size_t i = 0; i < here->ppfd.size(); ++i) {
    const auto toward = [&](const RungLight* rung) {
      return (std::log(rung->ppfd[i]) - std::log(here->ppfd[i])) / (rung->height_m - height_m);
    };
    if (above && below) {
      const double up = above->height_m - height_m, down = height_m - below->height_m;
      slopes.push_back((toward(above) * down + toward(below) * up) / (up + down));
    } else {
      slopes.push_back(toward(above ? above : below));
    }
  }
  return slopes;
}

}  // namespace sunbreak
