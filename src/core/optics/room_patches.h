#pragma once

#include "core/optics/form_factor.h"
#include "core/optics/room.h"

namespace sunbreak {

/// How finely a room's sides are cut into patches. They are graded: crowded toward the corners, and on walls toward
/// the floor, where the stations are and light changes fastest.
struct PatchCounts {
  int across = 12, up = 16;
};

/// One side cut into patches; with `cut` > 1, each of them cut into cut × cut again.
PatchGrid patch_grid(const Room& room, const Face& face, const PatchCounts& counts, int cut = 1);

}  // namespace sunbreak
