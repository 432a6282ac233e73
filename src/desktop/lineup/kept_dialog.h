#pragma once

#include <QDialog>
#include <optional>

#include "desktop/desk/desk.h"

class QListWidget;
class QLineEdit;

namespace sunbreak::desktop {

/// Line-ups that were kept, to open, call otherwise or drop; and guests, to send home.
class KeptDialog : public QDialog {
 public:
  KeptDialog(Desk& desk, record::Id open_now, QWidget* parent = nullptr);
  /// The line-up that was chosen, if one was.
  const std::optional<record::SavedLineUp>& chosen() const { return chosen_; }
  /// Whether guests were sent home.
  bool guests_changed() const { return guests_changed_; }

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void fill();
  void open();
  void rename();
  void drop();
  void send_home();

  Desk& desk_;
  QListWidget *lineups_, *guests_;
  QLineEdit* name_;
  std::vector<record::SavedLineUp> kept_;
  std::vector<record::Guest> invited_;
  record::Id open_now_;
  std::optional<record::SavedLineUp> chosen_;
  bool guests_changed_ = false;
};

}  // namespace sunbreak::desktop
