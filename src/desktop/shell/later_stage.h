#pragma once

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// A stage that is still to come: says in one line what will be there.
StageKind later_stage(Stage stage, const QString& name, const QString& what);

}  // namespace sunbreak::desktop
