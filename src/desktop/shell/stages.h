#pragma once

#include <vector>

#include "desktop/desk/stage.h"

namespace sunbreak::desktop {

/// The stages of a test in the order they are done. A new stage is a folder that gives a StageKind, and a line here.
const std::vector<StageKind>& stages();

/// The stage's entry in that list.
const StageKind& stage_kind(Stage stage);
/// How far a stage of the test on the desk is; untouched where there is no test.
StageMark mark_of(const StageKind& kind, const Desk& desk);
/// Its place there, from 0.
int stage_place(Stage stage);

}  // namespace sunbreak::desktop
