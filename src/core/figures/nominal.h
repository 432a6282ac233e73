#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/figures/serving_rule.h"
#include "core/sweep/field.h"

namespace sunbreak {

/// A usual growing area centered in the measured one, and what the field does there.
struct NominalFootprint {
  Footprint size;
  AreaLight light;      ///< its edge is read half a cell inside its border; shares are 0 where no band was given
  bool passes = false;  ///< the rule is met
};

/// A bench of 120 cm is what people call 4 ft: so much may be missing of a usual size.
inline constexpr double fit_slack_m = 0.025;

/// Works out each size that fits in the measured area (to 25 mm: a bench of 120 cm is called 4 ft, and all of it is
/// looked at); sizes that do not fit are left out, and so are all where the stations form no lattice. A size that holds
/// an unread place has NaN means.
std::vector<NominalFootprint> nominal_footprints(const Layout& layout, std::span<const double> ppfd,
                                                 std::span<const Footprint> sizes, const std::optional<Band>& band,
                                                 const ServingRule& rule);

/// The usual sizes: 60×60, 80×80, 90×90, 100×100, 120×120, 60×120 cm, oblong ones both ways round.
std::vector<Footprint> usual_metric_sizes();

/// The usual sizes: 2×2, 2×4, 3×3, 4×4, 5×5 ft, oblong ones both ways round.
std::vector<Footprint> usual_foot_sizes();

}  // namespace sunbreak
