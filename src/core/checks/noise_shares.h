#pragma once

#include <span>
#include <vector>

#include "core/bench/grid.h"
#include "core/checks/stuck_checks.h"

namespace sunbreak {

/// The variance of each reading's noise, in units of a usual reading's: a mean of more sensor values carries less of
/// the sensor's noise, and as much as any other of what placing the sensor scatters. The sensor's part comes from the
/// spreads of the readings' values, the rest from how the readings scatter about their views. Empty where all readings
/// average alike, or where too little is known to tell them apart. `sampled` by station, as the readings.
std::vector<double> noise_shares(const Layout& layout, std::span<const double> raw, std::span<const double> ppfd,
                                 std::span<const SampledReading> sampled);

}  // namespace sunbreak
