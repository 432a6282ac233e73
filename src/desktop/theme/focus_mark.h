#pragma once

#include <QPointer>
#include <QWidget>

namespace sunbreak::desktop {

/// A line of ember around the widget that keys go to, wherever its own look does not say so. One for the application;
/// it lies over the widget, follows it, and lets everything through.
class FocusMark : public QObject {
 public:
  explicit FocusMark(QObject* parent);

  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void mark(QWidget* widget);
  void place();

  QPointer<QWidget> marked_, line_;
};

}  // namespace sunbreak::desktop
