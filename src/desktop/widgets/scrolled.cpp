#include "desktop/widgets/scrolled.h"

#include <QScrollArea>
#include <QVBoxLayout>

namespace sunbreak::desktop {

QVBoxLayout* scrolled_column(QWidget* page) {
  page->setAttribute(Qt::WA_StyledBackground);
  auto* outer = new QVBoxLayout(page);
  outer->setContentsMargins(0, 8, 0, 0);
  auto* scroll = new QScrollArea(page);
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  scroll->setFocusPolicy(Qt::NoFocus);
  auto* content = new QWidget(scroll->viewport());
  content->setObjectName("ground");
  content->setAttribute(Qt::WA_StyledBackground);
  auto* column = new QVBoxLayout(content);
  column->setContentsMargins(0, 0, 8, 0);
  column->setSpacing(6);
  scroll->setWidget(content);
  outer->addWidget(scroll);
  return column;
}

}  // namespace sunbreak::desktop
