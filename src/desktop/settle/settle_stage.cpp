#include "desktop/settle/settle_stage.h"

#include "desktop/desk/desk.h"
#include "desktop/settle/settle_view.h"

namespace sunbreak::desktop {

StageKind settle_stage() {
  return {Stage::Settle, SettleView::tr("Settle"),
          [](const StageTools& tools, QWidget* parent) -> StageView* { return new SettleView(tools.desk, parent); },
          [](const Desk& desk) {
            if (!desk.test()->card_rows.empty()) return StageMark::Done;
            return desk.test()->settlings.empty() ? StageMark::Untouched : StageMark::Begun;
          }};
}

}  // namespace sunbreak::desktop
