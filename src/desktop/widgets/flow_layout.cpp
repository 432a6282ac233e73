#include "desktop/widgets/flow_layout.h"

#include <QWidget>

namespace sunbreak::desktop {

FlowLayout::FlowLayout(QWidget* parent, int gap) : QLayout(parent), gap_(gap) { setContentsMargins(0, 0, 0, 0); }

FlowLayout::~FlowLayout() { qDeleteAll(items_); }

QSize FlowLayout::minimumSize() const {
  QSize size;
  for (const QLayoutItem* item : items_) size = size.expandedTo(item->minimumSize());
  return size;
}

void FlowLayout::setGeometry(const QRect& rect) {
  QLayout::setGeometry(rect);
  arrange(rect, true);
}

int FlowLayout::arrange(const QRect& room, bool place) const {
  int x = room.left(), y = room.top(), row = 0;
  for (QLayoutItem* item : items_) {
    if (item->isEmpty()) continue;
    const QSize size = item->sizeHint();
    if (x + size.width() > room.left() + room.width() && row > 0) {
      x = room.left();
      y += row + gap_;
      row = 0;
    }
    if (place) item->setGeometry(QRect(QPoint(x, y), size));
    x += size.width() + gap_;
    row = std::max(row, size.height());
  }
  return y + row - room.top();
}

}  // namespace sunbreak::desktop
