#pragma once

#include <optional>
#include <span>
#include <vector>

namespace sunbreak {

/// One station's values, its own and those read there again.
struct RepeatedStation {
  std::vector<double> ppfd;
};

/// Scatter of one reading about the station's mean, pooled over the stations that were read again.
struct Repeatability {
  double relative_sd = 0;
  int degrees_of_freedom = 0;  ///< values less stations
};

/// The pooled relative standard deviation of repeats. Few repeats say little: they are weighed against `usual` as if
/// that had been seen with four degrees of freedom. Nothing where no station was read twice.
std::optional<Repeatability> repeatability(std::span<const RepeatedStation> stations, double usual);

}  // namespace sunbreak
