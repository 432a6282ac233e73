#pragma once

#include <cstddef>
#include <span>

#include "core/optics/emitter.h"
#include "core/optics/lobes.h"

namespace sunbreak {

/// An emitter without its light: where it is and how it is turned. `along` and `across` are the fixture's own x and y
/// as they lie in space; all three are of unit length and at right angles.
struct LobeSource {
  Vec3 place_m, axis = straight_down, along{1, 0, 0}, across{0, 1, 0};
};

/// Places that the kernel lights, all facing one way.
struct LitPlaces {
  const double *x_m, *y_m, *z_m;
  std::size_t count;
  Vec3 normal;
};

/// Adds to sums[lobe · count + place], for every lobe, cosᵏθ · (1, x², y², x⁴ or y⁴ of the direction) · cosψ / d² over
/// the emitters: their PPFD with that lobe, over lobe_peak(). An emitter's back is dark.
void add_lobe_light(std::span<const LobeSource> sources, const LitPlaces& places, double* sums);

/// Adds to sums[place] that of a whole mix; `weights` are fluxes times lobe_peak(). In single precision: to 1e-5 of the
/// light, or of a hundredth of the brightest where there is less.
void add_mixed_light(std::span<const LobeSource> sources, const LitPlaces& places, const double* weights, double* sums);

/// The copies of the two for one kind of processor each, chosen from by the functions above at run time.
struct LobeKernels {
  void (*lobes)(std::span<const LobeSource>, const LitPlaces&, double*);
  void (*mixed)(std::span<const LobeSource>, const LitPlaces&, const double*, double*);
};
extern const LobeKernels plain_lobe_kernels;
extern const LobeKernels wide_lobe_kernels;    ///< vectors of 256 bits
extern const LobeKernels widest_lobe_kernels;  ///< of 512 bits

}  // namespace sunbreak
