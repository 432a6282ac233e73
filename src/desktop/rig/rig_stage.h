#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// What is tested, with what and where: fixture, bench, meters, heights, settings.
StageKind rig_stage();

}  // namespace sunbreak::desktop
