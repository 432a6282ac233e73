#include "core/settle/settle_questions.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/quantity/daily_light.h"

namespace sunbreak {

Result<double> height_where_center(const SettleMaps& maps, const SettleSetting& setting, double ppfd,
                                   UnitSystem told_in) {
  if (maps.heights.empty()) return Problem{"no light is known between heights", "", "walk a height first"};
  std::vector<double> center;
  for (const auto& height : maps.heights) center.push_back(settle_figures(*height, setting, {}).center);
  for (std::size_t h = 0; h < center.size(); ++h) {
    if (center[h] == ppfd) return maps.heights[h]->height_m;
    if (h == 0 || (center[h - 1] - ppfd) * (center[h] - ppfd) > 0) continue;
    const double share = std::log(center[h - 1] / ppfd) / std::log(center[h - 1] / center[h]);
    return std::lerp(maps.heights[h - 1]->height_m, maps.heights[h]->height_m, share);
  }
  return Problem{fmt::format("the center reads {:.0f} µmol/m²/s at {} and {:.0f} at {}", center.front(),
                             length_text(maps.heights.front()->height_m, told_in), center.back(),
                             length_text(maps.heights.back()->height_m, told_in)),
                 fmt::format("{:.0f} is at no height within reach", ppfd), "ask for a PPFD between them"};
}

Result<SettleSetting> setting_where_corners(const SettleMaps& maps, const SettleHeight& height, double ppfd) {
  if (maps.steps.empty()) return Problem{"no setting of the dimmer is known", "", "walk a height first"};
  std::vector<double> corners;
  for (const SettleSetting& step : maps.steps) corners.push_back(settle_figures(height, step, {}).corners);
  for (std::size_t k = 0; k < corners.size(); ++k) {
    if (corners[k] == ppfd) return maps.steps[k];
    if (k > 0 && (corners[k - 1] - ppfd) * (corners[k] - ppfd) < 0)
      return blended(maps.steps[k - 1], maps.steps[k], (ppfd - corners[k - 1]) / (corners[k] - corners[k - 1]));
  }
  return Problem{fmt::format("the corners read {:.0f} µmol/m²/s at {:.4g} % and {:.0f} at {:.4g} %", corners.front(),
                             maps.steps.front().percent, corners.back(), maps.steps.back().percent),
                 fmt::format("{:.0f} is at no setting within reach", ppfd), "ask for a PPFD between them"};
}

Shrunk shrunk_to(const SettleLattice& lattice, std::span<const double> cells_ppfd, double mean_ppfd) {
  const int columns = lattice.columns, rows = lattice.rows;
  // Sums of all cells left of and in front of a line.
  std::vector<double> sums(static_cast<std::size_t>((columns + 1) * (rows + 1)));
  const auto sum = [&](int i, int j) -> double& { return sums[static_cast<std::size_t>(j * (columns + 1) + i)]; };
  for (int j = 0; j < rows; ++j)
    for (int i = 0; i < columns; ++i)
      sum(i + 1, j + 1) =
          cells_ppfd[static_cast<std::size_t>(j * columns + i)] + sum(i, j + 1) + sum(i + 1, j) - sum(i, j);
  const double cell_w = lattice.area.width_m / columns, cell_d = lattice.area.depth_m / rows;
  const auto mean_of = [&](int x_off, int y_off) {
    const int x1 = columns - x_off, y1 = rows - y_off;
    return (sum(x1, y1) - sum(x_off, y1) - sum(x1, y_off) + sum(x_off, y_off)) / ((x1 - x_off) * (y1 - y_off));
  };
  Shrunk shrunk;
  double largest = 0, largest_square = 0;
  for (int x_off = 0; 2 * x_off < columns; ++x_off)
    for (int y_off = 0; 2 * y_off < rows; ++y_off) {
      const Footprint size{(columns - 2 * x_off) * cell_w, (rows - 2 * y_off) * cell_d};
      if (mean_of(x_off, y_off) < mean_ppfd) continue;
      if (size.width_m * size.depth_m > largest) largest = size.width_m * size.depth_m, shrunk.rectangle = size;
      const bool square = std::abs(size.width_m - size.depth_m) < std::max(cell_w, cell_d) / 2;
      if (square && size.width_m > largest_square) largest_square = size.width_m, shrunk.square = size;
    }
  return shrunk;
}

std::optional<double> hours_for(double ppfd, double daily_light_mol_m2) {
  const double hours = daily_light_mol_m2 / dli_mol_m2_d(ppfd, 1);
  return hours <= 24 ? std::optional(hours) : std::nullopt;
}

}  // namespace sunbreak
