#pragma once

#include <algorithm>
#include <array>

namespace sunbreak {

/// A box: x from the left wall to the right, y from the front (door) wall to the back, z from the floor to the ceiling.
/// The floor lies at z = 0, the sensor's receiving surface. Surfaces reflect diffusely; an open side reflects nothing.
struct Room {
  double width_m = 1.2, depth_m = 1.2, height_m = 2.0;
  struct Reflectance {
    double left = 0, right = 0, front = 0, back = 0, ceiling = 0, floor = 0;
    bool operator==(const Reflectance&) const = default;
  } reflectance;

  bool operator==(const Room&) const = default;
};

/// One of the six sides: the axis it is perpendicular to, and whether it lies at that axis's far end.
struct Face {
  int axis = 0;
  bool high = false;

  bool operator==(const Face&) const = default;
};

inline constexpr std::array<Face, 6> faces{{{0, false}, {0, true}, {1, false}, {1, true}, {2, false}, {2, true}}};

constexpr double size_along(const Room& room, int axis) {
  return axis == 0 ? room.width_m : axis == 1 ? room.depth_m : room.height_m;
}

constexpr double reflectance_of(const Room& room, const Face& face) {
  const Room::Reflectance& r = room.reflectance;
  if (face.axis == 0) return face.high ? r.right : r.left;
  if (face.axis == 1) return face.high ? r.back : r.front;
  return face.high ? r.ceiling : r.floor;
}

/// How many times a photon is counted at most that passes the floor's plane downward: the floor sends it back up, and
/// the best of the other sides down again, over and over.
constexpr double most_return(const Room& room) {
  const Room::Reflectance& r = room.reflectance;
  const double back = std::max({r.left, r.right, r.front, r.back, r.ceiling});
  return 1 / (1 - r.floor * back);
}

}  // namespace sunbreak
