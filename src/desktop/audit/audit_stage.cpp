#include "desktop/audit/audit_stage.h"

#include <algorithm>

#include "desktop/audit/audit_view.h"
#include "desktop/desk/desk.h"
#include "record/claim_kinds.h"

namespace sunbreak::desktop {

StageKind audit_stage() {
  return {Stage::Audit, AuditView::tr("Audit"),
          [](const StageTools& tools, QWidget* parent) -> StageView* { return new AuditView(tools.desk, parent); },
          [](const Desk& desk) {
            const auto claims = record::claims_of(*desk.test());
            if (claims.empty()) return StageMark::Untouched;
            if (!std::ranges::all_of(claims, record::is_stated)) return StageMark::NeedsLook;
            return desk.worked_out().any_read() ? StageMark::Done : StageMark::Begun;
          }};
}

}  // namespace sunbreak::desktop
