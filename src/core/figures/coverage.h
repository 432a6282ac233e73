#pragma once

#include <optional>
#include <string>

#include "core/sweep/field.h"

namespace sunbreak {

/// A crop target's PPFD band [µmol m⁻² s⁻¹], both ends included.
struct Band {
  double low = 600, high = 1000;

  /// Written without a branch: it runs over whole rasters, where the answer is hard to foretell.
  bool contains(double ppfd) const { return static_cast<int>(ppfd >= low) & static_cast<int>(ppfd <= high); }
  bool operator==(const Band&) const = default;
};

/// From less of it no sweep stands for its whole area, and no area is served.
inline constexpr double least_read = 0.9;

/// Where the field lies in a band. Shares are of the measured area; those four add up to 1.
struct Coverage {
  Band band;
  double in_band_m2 = 0;
  double in_band_share = 0, too_dim_share = 0, too_bright_share = 0, unread_share = 0;
  Rectangle largest_rectangle;           ///< axis-aligned, wholly in band; no area where nothing is
  Rectangle largest_centered_rectangle;  ///< the same, its middle that of the measured area
  double largest_centered_circle_m = 0;  ///< diameter
};

/// The share in band: "84 %", or "at least 19 %" where less than least_read of the area was read,
/// "not known" where that is next to nothing.
std::string in_band_text(const Coverage& coverage);

/// Share of the samples that lie in a band; unread ones do not.
double in_band_share(const Raster& raster, const Band& band);

/// The same of a sweep's samples, without putting them together first.
double in_band_share(const RasterPlan& plan, std::span<const double> ppfd, const Band& band);

/// Coverage of the field's raster. Each sample stands for its own small cell, so that areas and sides are right to one
/// cell; a circle or rectangle never touches a cell that is out of band or unread.
Coverage coverage(const Raster& raster, const Band& band);

}  // namespace sunbreak
