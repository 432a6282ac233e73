#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/figures/coverage.h"
#include "core/sweep/field.h"

namespace sunbreak {

/// A usual growing area centered in the measured one, and what the field does there.
struct NominalFootprint {
  Footprint size;
  double edge_mean_ppfd = 0;    ///< mean along its edge
  double inside_mean_ppfd = 0;  ///< area mean inside
  double in_band_share = 0;     ///< share of its area in band; 0 where no band was given
  bool passes = false;          ///< serves() says so
};

inline constexpr double least_in_band = 0.9;

/// The rule by which an area serves a band: at least 90 % in it, and the mean along the edge at or above its low end.
bool serves(const Band& band, double in_band_share, double edge_mean_ppfd);

/// Mean along the edge of a rectangle by the midpoint rule, in steps as near to 1 cm as divide each side evenly.
double edge_mean_ppfd(const Field& field, const Rectangle& rectangle);

/// Works out each size that fits in the measured area (to 1 mm); sizes that do not fit are left out. A size that
/// holds an unread place has NaN means.
std::vector<NominalFootprint> nominal_footprints(const Field& field, const Rectangle& measured,
                                                 std::span<const Footprint> sizes, const std::optional<Band>& band);

/// The usual sizes: 60×60, 80×80, 90×90, 100×100, 120×120, 60×120 cm, oblong ones both ways round.
std::vector<Footprint> usual_metric_sizes();

/// The usual sizes: 2×2, 2×4, 3×3, 4×4, 5×5 ft, oblong ones both ways round.
std::vector<Footprint> usual_foot_sizes();

}  // namespace sunbreak
