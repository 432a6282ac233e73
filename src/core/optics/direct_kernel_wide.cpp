#include "core/optics/direct_kernel_loop.h"

namespace sunbreak {

/// Compiled for processors with 256-bit vectors; called only on those.
void add_direct_wide(const DirectKernel& k, const double* x, const double* y, const double* z, double* ppfd,
                     std::size_t count) {
  add_by_exponent(k, x, y, z, ppfd, count);
}

}  // namespace sunbreak
