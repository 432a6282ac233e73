#include "desktop/desk/stage_view.h"

#include <QKeyEvent>

namespace sunbreak::desktop {

void StageView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape && event->modifiers() == Qt::NoModifier && take_keyboard()) return;
  QWidget::keyPressEvent(event);
}

}  // namespace sunbreak::desktop
