#include "desktop/widgets/elided_combo.h"

#include <QStylePainter>
#include <algorithm>

namespace sunbreak::desktop {

QString ElidedCombo::shown() const {
  QStyleOptionComboBox option;
  initStyleOption(&option);
  const QRect room = style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxEditField, this);
  return fontMetrics().elidedText(currentText(), Qt::ElideRight, room.width());
}

/// As QComboBox has it of a least number of letters; that one builds its list at once to be told of it, long before
/// anybody opens it.
QSize ElidedCombo::sizeHint() const {
  if (!letters_) return QComboBox::sizeHint();
  constexpr int beside_icon_px = 4, least_text_px = 14, about_text_px = 2;
  QStyleOptionComboBox option;
  initStyleOption(&option);
  const QSize letters(*letters_ * fontMetrics().horizontalAdvance('X') + iconSize().width() + beside_icon_px,
                      std::max({fontMetrics().height(), least_text_px, iconSize().height()}) + about_text_px);
  return style()->sizeFromContents(QStyle::CT_ComboBox, &option, letters, this);
}

void ElidedCombo::paintEvent(QPaintEvent*) {
  QStylePainter painter(this);
  painter.setPen(palette().color(QPalette::Text));
  QStyleOptionComboBox option;
  initStyleOption(&option);
  option.currentText = shown();
  setToolTip(option.currentText == currentText() ? QString() : currentText());
  painter.drawComplexControl(QStyle::CC_ComboBox, option);
  painter.drawControl(QStyle::CE_ComboBoxLabel, option);
}

}  // namespace sunbreak::desktop
