#pragma once

#include <algorithm>
#include <vector>

#include "core/optics/lobe_kernel.h"
#include "core/optics/nominal_fixture.h"

namespace sunbreak {

/// How a fixture hangs. Places are off the point under which it is meant to hang; a unit's lean is what is added to its
/// described tilt, about the room's axes.
struct Hang {
  double x_m = 0, y_m = 0, height_m = 0;
  struct Lean {
    double roll_deg = 0;   ///< about y: the right side lower
    double pitch_deg = 0;  ///< about x: the far side lower
    bool operator==(const Lean&) const = default;
  };
  std::vector<Lean> leans;  ///< one a unit; missing ones are level
  double span = 1;          ///< of a unit's emitters, beside the described size
};

/// A fixture's emitters without their light, unit by unit.
class HungFixture {
 public:
  /// A dozen emitters along each side of a unit at most stand for all that the outline names; fewer where the units are
  /// many.
  explicit HungFixture(const FixtureOutline& outline, int most_a_side = 12);

  int units() const { return units_of(outline_); }
  const FixtureOutline& outline() const { return outline_; }

  /// One unit's emitters as they hang, over `under` (on the floor of the stations).
  std::vector<LobeSource> unit(int unit, const Hang& hang, const Vec3& under) const;

 private:
  FixtureOutline outline_;
  std::vector<Vec3> places_;  ///< of a unit's emitters, about its middle
};

}  // namespace sunbreak
