#pragma once

namespace sunbreak {

/// A place on the bench, from its near left corner: x to the right, y away from the door.
struct Place {
  double x_m = 0, y_m = 0;
  bool operator==(const Place&) const = default;
};

}  // namespace sunbreak
