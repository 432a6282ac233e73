#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// The lamp is watched until it stands, and its dimmer is climbed.
StageKind warm_up_stage();

}  // namespace sunbreak::desktop
