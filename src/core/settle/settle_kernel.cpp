#include "core/settle/settle_kernel.h"

#include "core/optics/processor.h"
#include "core/settle/settle_kernel_loop.h"

namespace sunbreak {

const SettleKernels plain_settle_kernels{count_in_loop, extremes_in_loop};

namespace {

const SettleKernels& chosen() {
#if defined(__x86_64__)
  static const SettleKernels& kernels = has_widest_vectors() ? widest_settle_kernels
                                        : has_wide_vectors() ? wide_settle_kernels
                                                             : plain_settle_kernels;
  return kernels;
#else
  return plain_settle_kernels;
#endif
}

}  // namespace

Counted count_in_sum(const float* values, const float* others, float share, std::size_t count, float low, float high) {
  return chosen().count_in_sum(values, others, share, count, low, high);
}

Extremes extremes_of_sum(const float* values, const float* others, float share, std::size_t count) {
  return chosen().extremes_of_sum(values, others, share, count);
}

}  // namespace sunbreak
