#pragma once

#include <QWidget>

class QLabel;
class QPushButton;

namespace sunbreak::desktop {

class Desk;
class FiguresTable;
class StairChart;

/// The dimmer's stair of the test: light and watts against the dial, the table, and what is to be said of it.
class StairPanel : public QWidget {
  Q_OBJECT
 public:
  explicit StairPanel(Desk& desk, QWidget* parent = nullptr);

 signals:
  void run_wanted();
  void find_wanted();

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void refresh();
  Desk& desk_;
  StairChart* chart_;
  FiguresTable *table_, *targets_;
  QLabel *words_, *empty_;
};

}  // namespace sunbreak::desktop
