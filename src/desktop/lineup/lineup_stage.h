#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

StageKind lineup_stage();

}  // namespace sunbreak::desktop
