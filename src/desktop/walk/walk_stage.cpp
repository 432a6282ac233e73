#include "desktop/walk/walk_stage.h"

#include <algorithm>

#include "desktop/desk/desk.h"
#include "desktop/desk/progress.h"
#include "desktop/walk/walk_view.h"

namespace sunbreak::desktop {
namespace {

StageMark walk_mark(const Desk& desk) {
  const SweepProgress progress = sweep_progress(desk);
  if (progress.begun == 0) return StageMark::Untouched;
  if (progress.complete < progress.planned) return StageMark::Begun;
  const auto& checks = desk.worked_out().all_findings();
  const bool open = std::any_of(checks.begin(), checks.end(), [](const auto& check) { return !check.set_aside; });
  return progress.with_holes > 0 || open ? StageMark::NeedsLook : StageMark::Done;
}

}  // namespace

StageKind walk_stage() {
  return {Stage::Walk, WalkView::tr("Walk"),
          [](const StageTools& tools, QWidget* parent) -> StageView* {
            return new WalkView(tools.desk, tools.hub, tools.log, parent);
          },
          walk_mark};
}

}  // namespace sunbreak::desktop
