#include "core/optics/direct_kernel_loop.h"

namespace sunbreak {

const DirectKernels wide_direct_kernels{add_by_exponent<double>, add_by_exponent<float>};

}  // namespace sunbreak
