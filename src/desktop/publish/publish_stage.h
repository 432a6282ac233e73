#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// The page and the package that go out.
StageKind publish_stage();

}  // namespace sunbreak::desktop
