#include "desktop/publish/publish_stage.h"

#include "desktop/desk/progress.h"
#include "desktop/publish/publish_view.h"

namespace sunbreak::desktop {

StageKind publish_stage() {
  return {Stage::Publish, PublishView::tr("Publish"),
          [](const StageTools& tools, QWidget* parent) -> StageView* { return new PublishView(tools.desk, parent); },
          [](const Desk& desk) { return sweep_progress(desk).begun > 0 ? StageMark::Begun : StageMark::Untouched; }};
}

}  // namespace sunbreak::desktop
