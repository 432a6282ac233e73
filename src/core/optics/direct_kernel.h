#pragma once

#include <cstddef>

namespace sunbreak {

/// One emitter and the way its receivers face, unpacked for the innermost loop.
struct DirectKernel {
  double x, y, z, dir_x, dir_y, dir_z, normal_x, normal_y, normal_z;
  double peak;  ///< Φ (m+1)/(2π)
  double exponent;
};

/// Adds peak · cosᵐθ · cosψ / d² at each place. Compiled by itself with relaxed arithmetic and for the processor at
/// hand, since nearly all of the model's time goes here.
void add_direct(const DirectKernel& k, const double* x, const double* y, const double* z, double* ppfd,
                std::size_t count);

}  // namespace sunbreak
