#include "core/optics/lobe_kernel_loop.h"

namespace sunbreak {

const LobeKernels wide_lobe_kernels{add_lobes_in_loop, add_mixed_in_loop};

}  // namespace sunbreak
