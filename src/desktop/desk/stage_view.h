#pragma once

#include <QWidget>
#include <vector>

namespace sunbreak::desktop {

/// A key and what it does, for the page of keys.
struct KeyHint {
  QString keys, does;
};

/// The middle of the window: one stage of the test on the desk.
class StageView : public QWidget {
  Q_OBJECT
 public:
  using QWidget::QWidget;
  /// Called when the stage comes to the front; puts the keyboard where the work is.
  virtual void arrive() {}
  virtual std::vector<KeyHint> keys() const { return {}; }
  /// Puts what the stage shows on the clipboard as a table; false where there is nothing.
  virtual bool copy() { return false; }

 signals:
  /// Asks for another place: a stage's number, for a way to what is missing.
  void go(int stage);
};

}  // namespace sunbreak::desktop
