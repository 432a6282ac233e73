#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// Stages that are still to come: each says in one line what will be there.
StageKind settle_stage();
StageKind audit_stage();
StageKind line_up_stage();

}  // namespace sunbreak::desktop
