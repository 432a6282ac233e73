#include "desktop/lineup/lineup_stage.h"

#include "desktop/desk/desk.h"
#include "desktop/lineup/lineup_view.h"

namespace sunbreak::desktop {

StageKind lineup_stage() {
  return {Stage::LineUp, LineUpView::tr("Line-up"),
          [](const StageTools& tools, QWidget* parent) -> StageView* { return new LineUpView(tools.desk, parent); },
          [](const Desk& desk) { return desk.worked_out().any_read() ? StageMark::Done : StageMark::Untouched; }};
}

}  // namespace sunbreak::desktop
