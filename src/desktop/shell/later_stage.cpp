#include "desktop/shell/later_stage.h"

#include <QVBoxLayout>

#include "desktop/desk/stage_view.h"
#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {
namespace {

StageView* page(const QString& name, const QString& what, QWidget* parent) {
  auto* view = new StageView(parent);
  view->setObjectName("ground");
  view->setAttribute(Qt::WA_StyledBackground);
  auto* layout = new QVBoxLayout(view);
  layout->setContentsMargins(48, 48, 48, 48);
  auto* title = figure_label(20, view);
  title->setText(StageView::tr("%1 is not ready yet").arg(name));
  layout->addWidget(title);
  auto* about = wrapped_label(what, view);
  about->setProperty("quiet", true);
  layout->addWidget(about);
  layout->addStretch();
  return view;
}

}  // namespace

StageKind later_stage(Stage stage, const QString& name, const QString& what) {
  return {stage, name, [name, what](const StageTools&, QWidget* parent) { return page(name, what, parent); }, nullptr};
}

}  // namespace sunbreak::desktop
