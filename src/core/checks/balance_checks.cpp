#include "core/checks/balance_checks.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/bench/mirror_stations.h"
#include "core/figures/balance.h"
#include "core/sweep/field.h"

namespace sunbreak {
namespace {

constexpr double noticed_pct = 2, shift_step_m = 0.01, farthest_m = 0.15;

/// The sweep made even about its middle, so that what is left on shifting it is the shift's own doing.
std::vector<double> symmetric(const Layout& layout, std::span<const double> ppfd) {
  std::vector<double> even(ppfd.size(), unread);
  for (const Station& s : layout.stations) {
    double sum = 0;
    int count = 0;
    for (const int image : mirror_stations(layout, s))
      if (const double v = ppfd[image]; !std::isnan(v)) sum += v, ++count;
    if (count > 0) even[layout.index(s.column, s.row)] = sum / count;
  }
  return even;
}

/// Slope of the light along an axis at a station: by its neighbors on both sides, or on the one there is.
double slope_per_m(const Layout& layout, const std::vector<double>& even, const Station& s, bool along_x) {
  const std::vector<double>& places = along_x ? layout.xs_m : layout.ys_m;
  const int at = along_x ? s.column : s.row, last = static_cast<int>(places.size()) - 1;
  const int low = std::max(at - 1, 0), high = std::min(at + 1, last);
  const auto value = [&](int i) { return along_x ? even[layout.index(i, s.row)] : even[layout.index(s.column, i)]; };
  return (value(high) - value(low)) / (places[high] - places[low]);
}

/// How far along an axis the fixture would hang off center for a difference, or nothing where the field is too flat to
/// say.
std::optional<double> shift_m(const Layout& layout, const std::vector<double>& even, bool along_x,
                              double difference_pct) {
  std::vector<double> shifted;
  for (const Station& s : layout.stations)
    shifted.push_back(even[layout.index(s.column, s.row)] - shift_step_m * slope_per_m(layout, even, s, along_x));
  const Balance b = balance(layout, shifted);
  const double per_step = along_x ? b.left_right_pct : b.front_back_pct;
  if (!(std::abs(per_step) > 0.05)) return {};
  const double shift = difference_pct / per_step * shift_step_m;
  return std::abs(shift) <= farthest_m ? std::optional(shift) : std::nullopt;
}

}  // namespace

std::vector<Finding> balance_checks(const Layout& layout, std::span<const double> ppfd, UnitSystem units) {
  std::vector<Finding> checks;
  if (!layout.is_lattice() || layout.columns < 2 || layout.rows < 2) return checks;
  const Balance b = balance(layout, ppfd);
  const std::vector<double> even = symmetric(layout, ppfd);
  const auto judge = [&](const char* id, double difference_pct, bool along_x, const char* near_side,
                         const char* far_side) {
    if (std::isnan(difference_pct) || std::abs(difference_pct) <= noticed_pct) return;
    const char* bright = difference_pct > 0 ? far_side : near_side;
    const char* dim = difference_pct > 0 ? near_side : far_side;
    const auto shift = shift_m(layout, even, along_x, difference_pct);
    const std::string move =
        shift ? fmt::format("move it about {} toward the {}", length_text(std::abs(*shift), units), dim)
              : fmt::format("move it toward the {}", dim);
    checks.push_back(
        {id,
         Severity::Look,
         {},
         fmt::format("the {} half reads {:.1f} % of the mean more than the {} half", bright, std::abs(difference_pct),
                     dim),
         "evenness is worse than the fixture's own",
         fmt::format("level it first, then {}; walls or a door that differ between the sides do the same", move)});
  };
  judge("left and right unlike", b.left_right_pct, true, "left", "right");
  judge("front and back unlike", b.front_back_pct, false, "front", "back");
  return checks;
}

}  // namespace sunbreak
