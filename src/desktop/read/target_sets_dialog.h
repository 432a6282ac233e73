#pragma once

#include <QDialog>
#include <functional>

#include "book/target_shelf.h"
#include "desktop/desk/desk.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QTableWidget;

namespace sunbreak::desktop {

/// The lists of crop targets on the shelf, to be changed: each cell is kept as it is typed, or refused in words.
class TargetSetsDialog : public QDialog {
 public:
  TargetSetsDialog(Desk& desk, const QString& set, QWidget* parent = nullptr);

 private:
  void show_sets(const QString& wanted);
  void fill();
  void take_cell(int row, int column);
  void add_target();
  void remove_target();
  void copy_set();
  bool change(const QString& label, const std::function<void(book::Edit&)>& edit);

  Desk& desk_;
  QComboBox* set_;
  QLineEdit* reason_;
  QTableWidget* table_;
  QLabel* problem_;
  std::vector<record::CropTarget> targets_;
  bool filling_ = false;
};

}  // namespace sunbreak::desktop
