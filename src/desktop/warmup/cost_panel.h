#pragma once

#include <QWidget>

class QLabel;

namespace sunbreak::desktop {

class Desk;
class FiguresTable;
class Form;
class TestLog;

/// What the fixture costs to run, the heat it makes, and what it asks of the circuit.
class CostPanel : public QWidget {
 public:
  CostPanel(Desk& desk, TestLog& log, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void refresh();
  Desk& desk_;
  TestLog& log_;
  Form* form_;
  FiguresTable* table_;
  QLabel* words_;
};

}  // namespace sunbreak::desktop
