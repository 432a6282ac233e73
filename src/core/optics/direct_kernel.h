#pragma once

#include <cstddef>

namespace sunbreak {

/// One emitter and the way its receivers face, unpacked for the innermost loop.
struct DirectKernel {
  double x, y, z, dir_x, dir_y, dir_z, normal_x, normal_y, normal_z;
  double peak;  ///< Φ (m+1)/(2π)
  double exponent;
};

/// Adds peak · cosᵐθ · cosψ / d² at each place; in single precision (to 1e-6 of the light) for what is reflected on,
/// whose factors are no better. Compiled by itself with relaxed arithmetic and for the processor at hand, since nearly
/// all of the model's time goes here.
void add_direct(const DirectKernel& k, const double* x, const double* y, const double* z, double* ppfd,
                std::size_t count);
void add_direct(const DirectKernel& k, const float* x, const float* y, const float* z, float* ppfd, std::size_t count);

/// The copies for one kind of processor each, chosen from by the functions above at run time.
struct DirectKernels {
  void (*exact)(const DirectKernel&, const double*, const double*, const double*, double*, std::size_t);
  void (*single)(const DirectKernel&, const float*, const float*, const float*, float*, std::size_t);
};
extern const DirectKernels plain_direct_kernels;
extern const DirectKernels wide_direct_kernels;    ///< vectors of 256 bits
extern const DirectKernels widest_direct_kernels;  ///< of 512 bits

}  // namespace sunbreak
