#pragma once

#include <optional>

#include "core/bench/footprint.h"
#include "core/settle/settle_solver.h"

namespace sunbreak {

/// The height [m] at which the center reads a PPFD at a setting, between the maps' heights; the lowest where several
/// do. A Problem names what it reads at either end.
Result<double> height_where_center(const SettleMaps& maps, const SettleSetting& setting, double ppfd,
                                   UnitSystem told_in = UnitSystem::Metric);

/// The setting at which the corners read a PPFD at a height.
Result<SettleSetting> setting_where_corners(const SettleMaps& maps, const SettleHeight& height, double ppfd);

/// The largest square and the largest rectangle about the area's middle whose mean is at least a PPFD, with the walls
/// where they are; to one cell of the lattice. Nothing where even the middle has less.
struct Shrunk {
  std::optional<Footprint> square, rectangle;
};
Shrunk shrunk_to(const SettleLattice& lattice, std::span<const double> cells_ppfd, double mean_ppfd);

/// Hours a day after which a PPFD has given a daily light; nothing over 24.
std::optional<double> hours_for(double ppfd, double daily_light_mol_m2);

}  // namespace sunbreak
