#pragma once

#include <span>
#include <vector>

#include "core/optics/emitter.h"

namespace sunbreak {

/// Places that face one way, kept coordinate by coordinate so that a sum over many of them runs fast.
struct FacingPlaces {
  Vec3 normal = straight_up;
  std::vector<double> x_m, y_m, z_m;

  std::size_t size() const { return x_m.size(); }
  void add(const Vec3& place) {
    x_m.push_back(place.x);
    y_m.push_back(place.y);
    z_m.push_back(place.z);
  }
};

/// Direct PPFD [µmol m⁻² s⁻¹] at a place that faces `normal`, walls apart:
/// Σ Φ (m+1)/(2π) · cosᵐθ · cosψ / d², θ from the emitter's axis, ψ from the normal. An emitter's back is dark.
double direct_ppfd(std::span<const Emitter> emitters, const Vec3& place, const Vec3& normal = straight_up);

/// Adds the direct PPFD of all emitters at the first places to `ppfd`, as many as that has; equal to direct_ppfd()
/// within rounding.
void add_direct_ppfd(std::span<const Emitter> emitters, const FacingPlaces& places, std::span<double> ppfd);

/// Places in single precision, for light that is reflected on.
struct RoughPlaces {
  Vec3 normal = straight_up;
  std::vector<float> x_m, y_m, z_m;

  explicit RoughPlaces(const FacingPlaces& places);
};
/// The same to 1e-6 of the light.
void add_direct_ppfd(std::span<const Emitter> emitters, const RoughPlaces& places, std::span<float> ppfd);

}  // namespace sunbreak
