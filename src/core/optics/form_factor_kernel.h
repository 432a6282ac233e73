#pragma once

#include <cstddef>

namespace sunbreak {

/// A line of corners of a side's patches, seen from a small surface: `along_m` runs along the line, `across_m` is one
/// for all of it, `distance_m` > 0 is how far the side lies from the surface, along the side's own normal.
struct CornerLine {
  const double* along_m;
  std::size_t count;
  double across_m, distance_m;
};

/// Primitives at the corners of a line, whose differences over a patch are its form factor.
struct CornerPrimitives {
  /// Of a side parallel to the surface's plane: odd along the line and across it.
  void (*parallel)(const CornerLine& corners, double* out);
  /// Of a side at right angles to it, where the line runs away from the surface's plane, and where it runs along it.
  /// From ∫∫ z d / (π r⁴) dz dy, z away from that plane and d the distance.
  void (*away)(const CornerLine& corners, double* out);
  void (*beside)(const CornerLine& corners, double* out);
};

/// The copy for the processor at hand.
const CornerPrimitives& corner_primitives();

extern const CornerPrimitives plain_corner_primitives;
extern const CornerPrimitives wide_corner_primitives;    ///< vectors of 256 bits
extern const CornerPrimitives widest_corner_primitives;  ///< of 512 bits

}  // namespace sunbreak
