#include "core/optics/form_factor_kernel_loop.h"

namespace sunbreak {

const CornerPrimitives widest_corner_primitives{parallel_in_loop, away_in_loop, beside_in_loop};

}  // namespace sunbreak
