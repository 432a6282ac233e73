#include "core/optics/form_factor_kernel.h"

#include "core/optics/form_factor_kernel_loop.h"
#include "core/optics/processor.h"

namespace sunbreak {

const CornerPrimitives plain_corner_primitives{parallel_in_loop, away_in_loop, beside_in_loop};

const CornerPrimitives& corner_primitives() {
#if defined(__x86_64__)
  static const CornerPrimitives& primitives = has_widest_vectors() ? widest_corner_primitives
                                              : has_wide_vectors() ? wide_corner_primitives
                                                                   : plain_corner_primitives;
  return primitives;
#else
  return plain_corner_primitives;
#endif
}

}  // namespace sunbreak
