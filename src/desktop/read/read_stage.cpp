#include "desktop/read/read_stage.h"

#include "desktop/desk/desk.h"
#include "desktop/desk/progress.h"
#include "desktop/read/read_view.h"

namespace sunbreak::desktop {

StageKind read_stage() {
  return {Stage::Read, ReadView::tr("Read"),
          [](const StageTools& tools, QWidget* parent) -> StageView* {
            return new ReadView(tools.desk, tools.hub, parent);
          },
          [](const Desk& desk) {
            const SweepProgress progress = sweep_progress(desk);
            if (progress.begun == 0) return StageMark::Untouched;
            return progress.complete < progress.planned ? StageMark::Begun : StageMark::Done;
          }};
}

}  // namespace sunbreak::desktop
