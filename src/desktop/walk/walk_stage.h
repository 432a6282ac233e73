#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// The stations are read one after the other.
StageKind walk_stage();

}  // namespace sunbreak::desktop
