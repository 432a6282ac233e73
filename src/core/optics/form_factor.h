#pragma once

#include <span>
#include <vector>

#include "core/optics/emitter.h"
#include "core/optics/room.h"

namespace sunbreak {

/// A side of the room cut into rectangles by edges along its two own axes (the other two, in ascending order).
struct PatchGrid {
  Face face;
  double plane_m = 0;  ///< where the side lies along its axis
  std::vector<double> u_edges_m, v_edges_m;

  int u_axis() const { return face.axis == 0 ? 1 : 0; }
  int v_axis() const { return face.axis == 2 ? 1 : 2; }
  std::size_t u_count() const { return u_edges_m.size() - 1; }
  std::size_t v_count() const { return v_edges_m.size() - 1; }
  std::size_t size() const { return u_count() * v_count(); }
  double area_m2(std::size_t patch) const;
  Vec3 middle(std::size_t patch) const;
  Vec3 normal() const;  ///< inward
};

/// Form factors from a small surface at `place`, facing along +axis or −axis (`toward_high`), to every patch of a side:
/// the share of light it sees, or sends, that is in that patch's solid angle, cosine-weighted. Closed form, by
/// differences of a primitive at the patches' corners; a patch behind the surface's own plane has 0. Adds to `factors`,
/// one a patch.
void add_form_factors(const Vec3& place, int axis, bool toward_high, const PatchGrid& side, double weight,
                      std::span<double> factors);

}  // namespace sunbreak
