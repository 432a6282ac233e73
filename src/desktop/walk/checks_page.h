#pragma once

#include <QDialog>

#include "desktop/desk/desk.h"

class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace sunbreak::desktop {

/// All checks of the test, open ones first: what each saw, what it does to the result, what to do. From here one goes
/// to where it is, sets it aside with a reason that the report prints, or takes it up again.
class ChecksPage : public QDialog {
  Q_OBJECT
 public:
  explicit ChecksPage(Desk& desk, QWidget* parent = nullptr);

 signals:
  /// Asks for a check's sweep and its first station (−1 where it is about the whole sweep).
  void go(sunbreak::record::Id sweep_id, int station);

 private:
  void refresh();
  bool still_looking() const;
  void go_there();
  void set_aside_or_take_up();
  const evaluation::TestFinding* chosen() const;
  QString place_of(const evaluation::TestFinding& check) const;

  Desk& desk_;
  std::vector<evaluation::TestFinding> shown_;
  QListWidget* list_;
  QLabel *details_, *problem_;
  QLineEdit* reason_;
  QPushButton *go_, *aside_;
};

}  // namespace sunbreak::desktop
