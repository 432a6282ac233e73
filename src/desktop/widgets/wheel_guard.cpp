#include "desktop/widgets/wheel_guard.h"

#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QEvent>
#include <QScrollBar>
#include <QTabBar>

namespace sunbreak::desktop {
namespace {

/// Whether it is one of Qt's fields that the wheel turns.
bool is_turned(const QObject* watched) {
  return qobject_cast<const QComboBox*>(watched) || qobject_cast<const QAbstractSpinBox*>(watched) ||
         qobject_cast<const QTabBar*>(watched) ||
         (qobject_cast<const QAbstractSlider*>(watched) && !qobject_cast<const QScrollBar*>(watched));
}

}  // namespace

void keep_keyboard_from_wheel(QObject* receiver, const QEvent* event) {
  if (event->type() != QEvent::Wheel || !receiver->isWidgetType()) return;
  for (auto* widget = static_cast<QWidget*>(receiver); widget; widget = widget->parentWidget())
    if (widget->focusPolicy() == Qt::WheelFocus) widget->setFocusPolicy(Qt::StrongFocus);
}

bool keep_wheel_off(QObject* watched, QEvent* event) {
  if (event->type() != QEvent::Wheel || !is_turned(watched)) return false;
  event->ignore();
  return true;
}

}  // namespace sunbreak::desktop
