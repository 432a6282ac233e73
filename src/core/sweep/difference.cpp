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

std::vector<double> difference(const Layout& layout, std::span<const double> ppfd, const Layout& other_layout,
                               std::span<const double> other_ppfd) {
  std::vector<double> result(ppfd.size(), unread);
  const Field other(other_layout, other_ppfd);
  const bool same_stations =
      layout.is_lattice() && layout.xs_m == other_layout.xs_m && layout.ys_m == other_layout.ys_m;
  for (std::size_t i = 0; i < ppfd.size(); ++i) {
    const Station& s = layout.stations[i];
    if (same_stations)
      result[i] = ppfd[i] - other_ppfd[i];
    else if (inside(other_layout.measured, s))
      result[i] = ppfd[i] - other.at(s.x_m, s.y_m);
  }
  return result;
}

}  // namespace sunbreak
