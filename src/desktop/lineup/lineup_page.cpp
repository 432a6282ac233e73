#include "desktop/lineup/lineup_page.h"

#include <QVBoxLayout>

namespace sunbreak::desktop {

LineUpPage::LineUpPage(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {}

QVBoxLayout* LineUpPage::whole_column() {
  setObjectName("ground");
  setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 6, 0, 0);
  column->setSpacing(6);
  return column;
}

}  // namespace sunbreak::desktop
