#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

StageKind settle_stage();

}  // namespace sunbreak::desktop
