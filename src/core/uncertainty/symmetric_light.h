#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/bench/grid.h"

namespace sunbreak {

/// The light without its readings' noise, where the fixture is its own mirror image about both middle lines: each
/// station has the mean (of ln PPFD) of its mirror images, moved by what a fixture off center and off level does to
/// them, which is few numbers for the whole sweep. Stations that are alike by symmetry come out alike, which a
/// surface fitted to each of them does not give. Nothing where under nine in ten stations were read, on other layouts,
/// and where readings depart from it by more than `scatter` (relative standard deviation, one a station) allows.
std::optional<std::vector<double>> symmetric_light(const Layout& layout, std::span<const double> ppfd,
                                                   std::span<const double> scatter);

}  // namespace sunbreak
