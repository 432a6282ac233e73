#pragma once

#include <array>
#include <vector>

#include "core/sweep/cut.h"
#include "evaluation/sweep_view.h"

namespace sunbreak::desktop {

/// Something of the plan that can be taken hold of and moved: the outer stations of the grid, one of its loose spots,
/// a side of the fixture's units, or their spacing along either side.
struct PlanHandle {
  enum Kind { Margin, Spot, Width, Depth, Spacing, RowSpacing } kind = Margin;
  int spot = 0;  ///< which one
  bool operator==(const PlanHandle&) const = default;
};

bool is_of_fixture(const PlanHandle& handle);

/// The spot that a handle of a spot is of.
Spot spot_of(const record::TestRecord& test, const PlanHandle& handle);

/// The corners of the fixture's units on the floor, row by row from the front left, each from its front left around.
std::vector<std::array<Place, 4>> units_from_above(const record::TestRecord& test);

/// What there is to take hold of in a test's plan.
std::vector<PlanHandle> plan_handles(const record::TestRecord& test);

/// Which of them lies within `reach_m` of a place on the floor; -1 where none does.
int handle_at(const record::TestRecord& test, double x_m, double y_m, double reach_m);

/// The plan after a handle was brought to a place on the floor, by whole centimeters. Outer stations that are moved
/// make the grid one that stops short of the walls. What the plan cannot be stays at the nearest that it can.
record::TestRecord moved(record::TestRecord test, const PlanHandle& handle, double x_m, double y_m);

/// The same by steps of a centimeter: outward or to the right and away from the door where positive.
record::TestRecord nudged(record::TestRecord test, const PlanHandle& handle, int steps_x, int steps_y);

}  // namespace sunbreak::desktop
