#include "desktop/shell/later_stage.h"

#include <QVBoxLayout>

#include "desktop/widgets/labels.h"

namespace sunbreak::desktop {

LaterStage::LaterStage(const QString& name, const QString& what, QWidget* parent) : StageView(parent) {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(48, 48, 48, 48);
  auto* title = figure_label(20, this);
  title->setText(tr("%1 is not ready yet").arg(name));
  layout->addWidget(title);
  auto* words = wrapped_label(what, this);
  words->setProperty("quiet", true);
  layout->addWidget(words);
  layout->addStretch();
}

}  // namespace sunbreak::desktop
