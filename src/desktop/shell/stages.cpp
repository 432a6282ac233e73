#include "desktop/shell/stages.h"

#include <algorithm>

#include "desktop/audit/audit_stage.h"
#include "desktop/desk/desk.h"
#include "desktop/lineup/lineup_stage.h"
#include "desktop/publish/publish_stage.h"
#include "desktop/read/read_stage.h"
#include "desktop/rig/rig_stage.h"
#include "desktop/settle/settle_stage.h"
#include "desktop/walk/walk_stage.h"
#include "desktop/warmup/warm_up_stage.h"

namespace sunbreak::desktop {

const std::vector<StageKind>& stages() {
  static const std::vector<StageKind> list = {
      rig_stage(),
      warm_up_stage(),
      walk_stage(),
      read_stage(),
      settle_stage(),
      audit_stage(),
      lineup_stage(),
      publish_stage(),
  };
  return list;
}

const StageKind& stage_kind(Stage stage) {
  return *std::find_if(stages().begin(), stages().end(), [&](const StageKind& kind) { return kind.stage == stage; });
}

StageMark mark_of(const StageKind& kind, const Desk& desk) {
  return desk.test() ? kind.mark(desk) : StageMark::Untouched;
}

int stage_place(Stage stage) { return static_cast<int>(&stage_kind(stage) - stages().data()); }

}  // namespace sunbreak::desktop
