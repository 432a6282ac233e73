#include "core/optics/lobe_kernel.h"

#include "core/optics/lobe_kernel_loop.h"
#include "core/processor.h"

namespace sunbreak {

const LobeKernels plain_lobe_kernels{add_lobes_in_loop, add_mixed_in_loop};

namespace {

const LobeKernels& chosen() {
  static const LobeKernels& kernels = widest_of(plain_lobe_kernels, wide_lobe_kernels, widest_lobe_kernels);
  return kernels;
}

}  // namespace

void add_lobe_light(std::span<const LobeSource> sources, const LitPlaces& places, double* sums) {
  chosen().lobes(sources, places, sums);
}

void add_mixed_light(std::span<const LobeSource> sources, const LitPlaces& places, const double* weights,
                     double* sums) {
  chosen().mixed(sources, places, weights, sums);
}

}  // namespace sunbreak
