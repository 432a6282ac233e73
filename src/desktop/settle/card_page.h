#pragma once

#include <QWidget>

#include "desktop/settle/settle_work.h"
#include "evaluation/settings_card.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace sunbreak::desktop {

/// The settings card: a row for each stage of growth of a list of targets, made by the solver under one policy; height,
/// setting, hours and weeks can be typed over, and each row is judged anew.
class CardPage : public QWidget {
 public:
  CardPage(Desk& desk, SettleWork& work, QWidget* parent = nullptr);
  void refresh();

 private:
  void make_card();
  void look();
  void show_card();
  void take_cell(int row, int column);
  void save_card();

  Desk& desk_;
  SettleWork& work_;
  QComboBox *list_, *policy_;
  QPushButton *make_, *save_;
  QTableWidget* table_;
  QLabel *state_, *sum_, *maker_;
  evaluation::SettingsCard card_;
  bool filling_ = false;
  Background making_, looking_;
};

}  // namespace sunbreak::desktop
