#include "core/optics/direct_kernel.h"

#include "core/optics/direct_kernel_loop.h"
#include "core/processor.h"

namespace sunbreak {

const DirectKernels plain_direct_kernels{add_by_exponent<double>, add_by_exponent<float>};

namespace {

const DirectKernels& direct_kernels() {
  static const DirectKernels& chosen = widest_of(plain_direct_kernels, wide_direct_kernels, widest_direct_kernels);
  return chosen;
}

}  // namespace

void add_direct(const DirectKernel& k, const double* x, const double* y, const double* z, double* ppfd,
                std::size_t count) {
  direct_kernels().exact(k, x, y, z, ppfd, count);
}

void add_direct(const DirectKernel& k, const float* x, const float* y, const float* z, float* ppfd, std::size_t count) {
  direct_kernels().single(k, x, y, z, ppfd, count);
}

}  // namespace sunbreak
