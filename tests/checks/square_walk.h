#pragma once

#include "core/bench/walk_order.h"

namespace sunbreak {

inline const Layout layout = lay_out({1.2, 1.2}, {GridKind::Cells, 12, 12, 0, 0, {}}).value();
inline const std::vector<int> walk = walk_order(layout, WalkOrder::FarToDoor);

}  // namespace sunbreak
