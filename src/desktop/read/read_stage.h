#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// What the sweeps come to: maps, figures, targets, how sure.
StageKind read_stage();

}  // namespace sunbreak::desktop
