#include "desktop/rig/rig_stage.h"

#include "desktop/desk/desk.h"
#include "desktop/rig/rig_view.h"

namespace sunbreak::desktop {

StageKind rig_stage() {
  return {
      Stage::Rig, RigView::tr("Rig"),
      [](const StageTools& tools, QWidget* parent) -> StageView* { return new RigView(tools.desk, tools.hub, parent); },
      [](const Desk& desk) {
        const record::TestRecord& test = *desk.test();
        return test.fixture.name == "New fixture" || test.rungs.empty() || test.stops.empty() || !test.test.sensor_id
                   ? StageMark::Begun
                   : StageMark::Done;
      }};
}

}  // namespace sunbreak::desktop
