#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

StageKind audit_stage();

}  // namespace sunbreak::desktop
