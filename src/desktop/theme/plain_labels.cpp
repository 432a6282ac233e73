#include "desktop/theme/plain_labels.h"

#include <QEvent>
#include <QLabel>

namespace sunbreak::desktop {

bool PlainLabels::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Polish)
    if (auto* label = qobject_cast<QLabel*>(watched); label && label->textFormat() == Qt::AutoText)
      label->setTextFormat(Qt::PlainText);
  return false;
}

}  // namespace sunbreak::desktop
