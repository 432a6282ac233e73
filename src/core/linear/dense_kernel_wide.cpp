#include "core/linear/dense_kernel_loop.h"

namespace sunbreak {

const DenseKernels wide_dense_kernels = kernels_in_loop;

}  // namespace sunbreak
