#include "core/optics/direct_kernel_loop.h"

namespace sunbreak {

void add_direct_wide(const DirectKernel& k, const double* x, const double* y, const double* z, double* ppfd,
                     std::size_t count);

void add_direct(const DirectKernel& k, const double* x, const double* y, const double* z, double* ppfd,
                std::size_t count) {
#if defined(__x86_64__)
  static const bool wide = __builtin_cpu_supports("avx2") && __builtin_cpu_supports("fma");
  if (wide) return add_direct_wide(k, x, y, z, ppfd, count);
#endif
  add_by_exponent(k, x, y, z, ppfd, count);
}

}  // namespace sunbreak
