#include "desktop/theme/focus_mark.h"

#include <QAbstractButton>
#include <QApplication>
#include <QComboBox>
#include <QLineEdit>
#include <QPainter>
#include <QPlainTextEdit>

#include "desktop/theme/theme.h"

namespace sunbreak::desktop {
namespace {

/// The style sheet draws these with the keyboard as others; what says so itself has the property "showsFocus".
bool shows_it_already(const QWidget* w) {
  const auto* button = qobject_cast<const QAbstractButton*>(w);
  return w->property("showsFocus").toBool() || (button && !button->inherits("QCheckBox")) ||
         qobject_cast<const QLineEdit*>(w) || qobject_cast<const QComboBox*>(w) ||
         qobject_cast<const QPlainTextEdit*>(w);
}

class Line : public QWidget {
 public:
  explicit Line(QWidget* parent) : QWidget(parent) {
    setAttribute(Qt::WA_TransparentForMouseEvents);
    setFocusPolicy(Qt::NoFocus);
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.setPen(QPen(theme().ember, 2));
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
};

}  // namespace

FocusMark::FocusMark(QObject* parent) : QObject(parent) {
  connect(qApp, &QApplication::focusChanged, this, [this](QWidget*, QWidget* now) { mark(now); });
}

void FocusMark::mark(QWidget* widget) {
  if (marked_) marked_->removeEventFilter(this);
  marked_ = widget && widget->parentWidget() && !widget->isWindow() && !shows_it_already(widget) ? widget : nullptr;
  if (line_) line_->hide(), line_->deleteLater();
  line_ = nullptr;
  if (!marked_) return;
  marked_->installEventFilter(this);
  line_ = new Line(marked_->parentWidget());
  place();
}

void FocusMark::place() {
  if (!line_ || !marked_) return;
  line_->setGeometry(marked_->geometry());
  line_->raise();
  line_->setVisible(marked_->isVisible());
}

bool FocusMark::eventFilter(QObject* watched, QEvent* event) {
  switch (event->type()) {
    case QEvent::Move:
    case QEvent::Resize:
    case QEvent::Show:
    case QEvent::Hide:
      place();
      break;
    case QEvent::ParentChange:
      mark(marked_);
      break;
    default:
      break;
  }
  return QObject::eventFilter(watched, event);
}

}  // namespace sunbreak::desktop
