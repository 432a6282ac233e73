#include "desktop/shell/stages.h"

#include <algorithm>

#include "desktop/publish/publish_stage.h"
#include "desktop/read/read_stage.h"
#include "desktop/rig/rig_stage.h"
#include "desktop/shell/later_stage.h"
#include "desktop/walk/walk_stage.h"
#include "desktop/warmup/warm_up_stage.h"

namespace sunbreak::desktop {

const std::vector<StageKind>& stages() {
  static const std::vector<StageKind> list = {
      rig_stage(),    warm_up_stage(), walk_stage(),    read_stage(),     // measuring
      settle_stage(), audit_stage(),   line_up_stage(), publish_stage(),  // judging and telling
  };
  return list;
}

const StageKind& stage_kind(Stage stage) {
  return *std::find_if(stages().begin(), stages().end(), [&](const StageKind& kind) { return kind.stage == stage; });
}

int stage_place(Stage stage) { return static_cast<int>(&stage_kind(stage) - stages().data()); }

}  // namespace sunbreak::desktop
