#include "desktop/widgets/elided_label.h"

#include <QPainter>

#include "desktop/theme/theme.h"

namespace sunbreak::desktop {

void ElidedLabel::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setPen(theme().quiet);
  const QString shown = fontMetrics().elidedText(text(), Qt::ElideRight, width());
  setToolTip(shown == text() ? QString() : text());
  p.drawText(rect(), Qt::AlignLeft | Qt::AlignVCenter, shown);
}

}  // namespace sunbreak::desktop
