#include "core/linear/dense_kernel.h"

#include "core/linear/dense_kernel_loop.h"
#include "core/processor.h"

namespace sunbreak {

const DenseKernels plain_dense_kernels = kernels_in_loop;

const DenseKernels& dense_kernels() {
  static const DenseKernels& kernels = widest_of(plain_dense_kernels, wide_dense_kernels, widest_dense_kernels);
  return kernels;
}

}  // namespace sunbreak
