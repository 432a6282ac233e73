#include "core/sweep/difference.h"

#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double slack_m = 1e-6;

bool inside(const Rectangle& area, const Station& s) {
  return s.x_m >= area.left_m - slack_m && s.x_m <= area.left_m + area.width_m + slack_m &&
         s.y_m >= area.front_m - slack_m && s.y_m <= area.front_m + area.depth_m + slack_m;
}

}  // namespace

std::vector<double> light_at(const Layout& layout, const Layout& other_layout, std::span<const double> other_ppfd) {
  if (layout.is_lattice() && layout.xs_m == other_layout.xs_m && layout.ys_m == other_layout.ys_m)
    return {other_ppfd.begin(), other_ppfd.end()};
  const Field other(other_layout, other_ppfd);
  std::vector<double> light;
  for (const Station& s : layout.stations)
    light.push_back(inside(other_layout.measured, s) ? other.at(s.x_m, s.y_m) : unread);
  return light;
}

std::vector<double> difference(const Layout& layout, std::span<const double> ppfd, const Layout& other_layout,
                               std::span<const double> other_ppfd) {
  std::vector<double> result = light_at(layout, other_layout, other_ppfd);
  for (std::size_t i = 0; i < result.size(); ++i) result[i] = ppfd[i] - result[i];
  return result;
}

}  // namespace sunbreak
