#pragma once

#include <memory>
#include <vector>

#include "core/bench/grid.h"
#include "core/whole_light/whole_light.h"

namespace sunbreak {

/// How several of a fixture hang: rows and columns over the room's middle, middle to middle.
struct HangingPattern {
  int columns = 1, rows = 1;
  double column_spacing_m = 0, row_spacing_m = 0;
  bool operator==(const HangingPattern&) const = default;
};

/// A found fixture's light in another room.
struct Restated {
  std::vector<double> ppfd;  ///< one a station
  FoundValue mean_ppfd;      ///< area-weighted; ± of beam and whole light, without the sensor's calibration
  double lowest_ppfd = 0, highest_ppfd = 0;
  FoundValue lowest_over_mean;  ///< ± of beam and whole light
};

/// Another room with stations on its floor, made once; what hangs in it is changed at little cost. Fixtures hang true:
/// level and where the pattern says, whatever they did on the bench.
class Elsewhere {
 public:
  /// `found` has to fit. Stations lie on the room's floor.
  Elsewhere(const WholeLight& found, const Room& room, Layout stations);
  ~Elsewhere();
  Elsewhere(Elsewhere&&) noexcept;

  const Layout& layout() const;
  const Room& room() const;

  /// With the light of the bench's first setting times `light_factor`.
  Restated at(const HangingPattern& pattern, double height_m, double light_factor = 1) const;
  /// The stations' PPFD alone, without the ±: faster.
  std::vector<double> ppfd_at(const HangingPattern& pattern, double height_m, double light_factor = 1) const;
  /// The same within a percent or so, in a tenth of the time or less: to search among many patterns.
  std::vector<double> rough_ppfd_at(const HangingPattern& pattern, double height_m) const;

 private:
  struct Parts;
  std::unique_ptr<Parts> parts_;
};

}  // namespace sunbreak
