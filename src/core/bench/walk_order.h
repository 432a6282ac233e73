#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// The way through the stations.
enum class WalkOrder {
  FarToDoor,     ///< snakes from the far row to the door: the arm never reaches over a station still to be read
  DoorToFar,     ///< snakes from the door to the far row
  CenterOutward  ///< ring by ring from the middle to the walls
};

std::string_view name(WalkOrder order);
/// Nothing where the name is none of them.
std::optional<WalkOrder> parse_walk_order(std::string_view text);

/// The stations in the order they are read, as indices into Layout::stations, each once. Spots keep the order they were
/// named in.
std::vector<int> walk_order(const Layout& layout, WalkOrder order);

/// Center and four corners of a lattice of 3 × 3 or more, nearest the far left first: read before the rest, they tell
/// early whether the fixture hangs level and centered. Empty for other layouts.
std::vector<int> opening_probe(const Layout& layout);

/// The walk with its opening probe first, each station once.
std::vector<int> with_probe_first(const std::vector<int>& walk, const std::vector<int>& probe);

/// The station that is read again during a walk to follow drift: the one nearest the middle.
int reference_station(const Layout& layout);

}  // namespace sunbreak
