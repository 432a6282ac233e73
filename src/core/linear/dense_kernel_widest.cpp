#include "core/linear/dense_kernel_loop.h"

namespace sunbreak {

const DenseKernels widest_dense_kernels = kernels_in_loop;

}  // namespace sunbreak
