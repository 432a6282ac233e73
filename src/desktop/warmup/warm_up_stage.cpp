#include "desktop/warmup/warm_up_stage.h"

#include "desktop/desk/desk.h"
#include "desktop/warmup/warm_up_view.h"

namespace sunbreak::desktop {
namespace {

/// How far it stabilized is for the page itself: here, that there is a log or a stair is told.
StageMark warm_up_mark(const Desk& desk) {
  const record::TestRecord& test = *desk.test();
  const bool logged = !test.log_parts.empty() || !test.wall_readings.empty();
  const bool climbed = !test.stair_stops.empty();
  if (logged && climbed) return StageMark::Done;
  return logged || climbed || !test.lamp_events.empty() ? StageMark::Begun : StageMark::Untouched;
}

}  // namespace

StageKind warm_up_stage() {
  return {Stage::WarmUp, WarmUpView::tr("Warm-up"),
          [](const StageTools& tools, QWidget* parent) -> StageView* {
            return new WarmUpView(tools.desk, tools.hub, tools.log, parent);
          },
          warm_up_mark};
}

}  // namespace sunbreak::desktop
