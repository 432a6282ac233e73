#include "desktop/shell/later_stage.h"

#include <QCoreApplication>
#include <QVBoxLayout>

#include "desktop/desk/stage_view.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {

QString words(const char* text) { return QCoreApplication::translate("later stages", text); }

StageView* later(const StageKind& kind, const QString& what, QWidget* parent) {
  auto* view = new StageView(parent);
  view->setObjectName("ground");
  view->setAttribute(Qt::WA_StyledBackground);
  auto* layout = new QVBoxLayout(view);
  layout->setContentsMargins(48, 48, 48, 48);
  auto* title = figure_label(20, view);
  title->setText(words("%1 is not ready yet").arg(kind.name));
  layout->addWidget(title);
  auto* about = wrapped_label(what, view);
  about->setProperty("quiet", true);
  layout->addWidget(about);
  layout->addStretch();
  return view;
}

StageMark to_come(const Desk&) { return StageMark::ToCome; }

}  // namespace

StageKind settle_stage() {
  return {Stage::Settle, words("Settle"),
          [](const StageTools&, QWidget* parent) {
            return later(settle_stage(),
                         words("Here the height and dimmer setting will be found that suit the crop, with what each "
                               "costs."),
                         parent);
          },
          to_come};
}

StageKind audit_stage() {
  return {Stage::Audit, words("Audit"),
          [](const StageTools&, QWidget* parent) {
            return later(audit_stage(),
                         words("Here each of the maker's claims will be held against what was measured."), parent);
          },
          to_come};
}

StageKind line_up_stage() {
  return {Stage::LineUp, words("Line-up"),
          [](const StageTools&, QWidget* parent) {
            return later(line_up_stage(), words("Here fixtures will stand side by side, where they may be compared."),
                         parent);
          },
          to_come};
}

}  // namespace sunbreak::desktop
