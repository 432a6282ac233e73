#include "core/settle/settle_kernel_loop.h"

namespace sunbreak {

#if defined(__x86_64__)
const SettleKernels widest_settle_kernels{count_in_loop, extremes_in_loop};
#endif

}  // namespace sunbreak
