#include "core/optics/direct_kernel_loop.h"

namespace sunbreak {

#if defined(__x86_64__)
const DirectKernels wide_direct_kernels{add_by_exponent<double>, add_by_exponent<float>};
#endif

}  // namespace sunbreak
