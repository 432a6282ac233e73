#include "core/optics/form_factor_kernel.h"

#include "core/optics/form_factor_kernel_loop.h"
#include "core/processor.h"

namespace sunbreak {

const CornerPrimitives plain_corner_primitives{parallel_in_loop, away_in_loop, beside_in_loop};

const CornerPrimitives& corner_primitives() {
  static const CornerPrimitives& chosen =
      widest_of(plain_corner_primitives, wide_corner_primitives, widest_corner_primitives);
  return chosen;
}

}  // namespace sunbreak
