#pragma once

#include <QWidget>
#include <vector>

#include "desktop/desk/stage.h"

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
  /// Puts the keyboard where letters are keys of the stage, as Escape in a field asks for; false where there is no such
  /// place.
  virtual bool take_keyboard() { return false; }
  virtual std::vector<KeyHint> keys() const { return {}; }
  /// Puts the keyboard into the field of that name, wherever it is folded away.
  virtual void reveal(const QString& /*field*/) {}
  /// A page up (−1) or down (+1) of what the stage shows; false where these keys change the height, as mostly.
  virtual bool page(int /*by*/) { return false; }
  /// Puts what the stage shows on the clipboard as a table and says so; empty where there is nothing.
  virtual QString copy() { return {}; }
  /// Takes a table that was brought in while the stage is at the front; `source` is file or pasted. False where the
  /// readings of a sweep are meant.
  virtual bool take_table(const std::string& /*bytes*/, const QString& /*origin*/, const std::string& /*source*/) {
    return false;
  }
  /// A test that is opened here begins with its fullest sweep; otherwise with the first that is still to be read.
  virtual bool begins_with_fullest_sweep() const { return true; }

 signals:
  /// Asks for another stage, for a way to what is missing; `field` names the one that waits for it.
  void go(sunbreak::desktop::Stage stage, const QString& field = {});
  /// Asks for a file of readings or a log to be chosen and brought in.
  void wants_file();
  /// A block of cells was pasted where one value goes.
  void pasted(const QString& text);
  /// Asks for the whole screen, or gives it back.
  void arms_length_wanted(bool on);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
};

}  // namespace sunbreak::desktop
